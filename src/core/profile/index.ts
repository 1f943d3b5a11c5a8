export { decisionsOf, inForce, overrides, type Decided } from "./inForce";
export type { Decidable, Override, Standing } from "./shape";
export {
  besideKeys,
  besideOf,
  besideSettings,
  besideValues,
  isBeside,
  isCheckable,
  type Beside,
} from "./beside";
export { type ProfileOf, type RigNow, type SetValue } from "./layerValues";
export { layers, type Layer } from "./layer";
export type { LayerValue, MeasuredOn, Origin } from "./shape";
export {
  droppable,
  effectiveSettings,
  liftable,
  profileDifferences,
  profileRows,
  valuesInForce,
  type ProfileDifference,
  type ProfileRow,
} from "./layers";
export { staleKinds } from "./layer";
export type { Confirmation, Liftable, Proof } from "./shape";
export { HeldValues, placeName } from "./heldValues";
export { heldIn, heldWithOrigins, type StoredValue, type ToldWithOrigin } from "./told";
export {
  mostProfileValues,
  originWords,
  profileFile,
  profileFileSchema,
  profileJsonSchema,
  type ProfileFile,
} from "./file";
export { fileRows, guessedSetting, wantedInFile, type FileEntry, type FileRow } from "./inFile";
export { benchDraft, type Lying } from "./benchDraft";
