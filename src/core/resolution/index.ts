export { coverage, fillings, filled, type Box, type Filling } from "./filling";
export { arranged, screenLayouts, type PlacedScreen, type ScreenShape, type ScreenLayout } from "./layout";
export { pixelsAt, planScales, type ScalePlan, type ScaleRow } from "./scales";
export { pictureAims, scaleFor, scaleAdvice, type PictureAim } from "./advice";
export { cardAt, cardSize, shownCard, type Colour } from "./testCard";
export { physicalSize } from "./physical";
export type { ResolutionCodes, ScaleSaid } from "./codes";
