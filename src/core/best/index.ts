export {
  bestOf,
  wayRowSchema,
  ways,
  type ComparedArm,
  type ComparedTrial,
  type Way,
  type WayRow,
} from "./best";
