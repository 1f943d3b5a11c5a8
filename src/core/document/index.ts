export {
  escapeHtml,
  escapeMarkdown,
  htmlTable,
  markdownTable,
  pageStyle,
  unbroken,
  unitFirst,
  type DocumentTable,
} from "./document";
