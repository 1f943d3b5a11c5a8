export { fitWorld, type FittedWorld, type Observation, type Spreads } from "./fit";
export { calibrate, chanceOf, predict, type Calibration, type Prediction } from "./predict";
export { Foresight, type AskedTitle, type StartingPoint } from "./suggest";
