export { isExplainedHead } from "./heads";
export { explainedBy, explainedNames, type ExplainedKey, type ExplainedName } from "./names";
