export {
  publicationFormat,
  publicationJsonSchema,
  publicationKinds,
  publicationSchema,
  type Publication,
} from "./publication";
export { publicationHtml, publicationMarkdown, type PageFonts } from "./render";
