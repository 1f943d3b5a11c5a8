export { enoughRepeats, nextStep, type NextStep, type StepRun } from "./nextStep";
