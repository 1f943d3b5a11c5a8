export { CaptureDesk } from "./CaptureDesk";
