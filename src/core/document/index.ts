export { cellText, csvCell, csvOf } from "./csv";
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
