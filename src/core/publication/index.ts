export {
  mostCells,
  publicationFormat,
  publicationJsonSchema,
  publicationKinds,
  publicationSchema,
  type Publication,
} from "./publication";
export { sortingHash, publicationHtml, publicationMarkdown } from "./render";
export type { PageFonts } from "./shape";
