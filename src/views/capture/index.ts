export { CaptureDesk, videos } from "./CaptureDesk";
export { Marks } from "./Marks";
export { Strip } from "./Strip";
export {
  firstOfTwo,
  isInHand,
  sessionFor,
  takeInHand,
  useInHand,
  type CaptureSession,
  type InHand,
} from "./session";
