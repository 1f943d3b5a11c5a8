export {
  decisionsOf,
  inForce,
  overrides,
  type Decidable,
  type Decided,
  type Override,
  type Standing,
} from "./inForce";
export {
  besideKeys,
  besideOf,
  besideSettings,
  besideValues,
  isBeside,
  isCheckable,
  type Beside,
} from "./beside";
export {
  layers,
  type Layer,
  type LayerValue,
  type MeasuredOn,
  type Origin,
  type ProfileOf,
  type RigNow,
  type SetValue,
} from "./layerValues";
export {
  droppable,
  effectiveSettings,
  liftable,
  profileDifferences,
  profileRows,
  staleKinds,
  valuesInForce,
  type Confirmation,
  type Liftable,
  type ProfileDifference,
  type ProfileRow,
  type Proof,
} from "./layers";
export { HeldValues, placeName } from "./heldValues";
export { heldIn, heldWithOrigins, type Told, type ToldWithOrigin } from "./told";
export {
  mostProfileValues,
  originWords,
  profileFile,
  profileFileSchema,
  profileJsonSchema,
  type ProfileFile,
} from "./file";
export { fileRows, guessedSetting, wantedInFile, type FileEntry, type FileRow } from "./inFile";
