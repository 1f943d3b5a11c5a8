export {
  mostCells,
  publicationFormat,
  publicationJsonSchema,
  publicationKinds,
  publicationSchema,
  type Publication,
} from "./publication";
export { sortingHash, publicationHtml, publicationMarkdown, type PageFonts } from "./render";
