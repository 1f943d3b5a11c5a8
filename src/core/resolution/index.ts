export { coverage, fits, fitted, type Box, type Fit } from "./fit";
export { arranged, screenLayouts, type PlacedScreen, type Screen, type ScreenLayout } from "./layout";
export { pixelsAt, planScales, type ScalePlan, type ScaleRow } from "./scales";
export { pictureAims, scaleFor, scaleSentence, type PictureAim } from "./advice";
export { cardAt, cardSize, shownCard, type Colour } from "./testCard";
export { physicalSize } from "./physical";
