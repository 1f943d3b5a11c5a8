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
  droppable,
  effectiveSettings,
  layers,
  liftable,
  profileDifferences,
  profileRows,
  staleKinds,
  valuesInForce,
  type Confirmation,
  type Layer,
  type LayerValue,
  type Liftable,
  type MeasuredOn,
  type Origin,
  type ProfileDifference,
  type ProfileOf,
  type ProfileRow,
  type RigNow,
  type SetValue,
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
