export {
  escapeHtml,
  escapeMarkdown,
  htmlTable,
  markdownTable,
  pageStyle,
  type DocumentTable,
} from "./document";
