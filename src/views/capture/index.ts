export { CaptureDesk, videos } from "./CaptureDesk";
export { Marks } from "./Marks";
export { Timeline } from "./Timeline";
export {
  firstOfTwo,
  isInHand,
  sessionFor,
  takeInHand,
  useInHand,
  type CaptureSession,
  type InHand,
} from "./session";
