export { Frame, type Theme } from "./Frame";
