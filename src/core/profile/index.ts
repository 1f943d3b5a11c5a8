export {
  decisionsOf,
  inForce,
  overrides,
  type Decidable,
  type Decided,
  type Override,
  type Standing,
} from "./inForce";
