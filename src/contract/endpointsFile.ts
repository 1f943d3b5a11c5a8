import { endpointList } from "./registry";

/** The text of `endpoints.ts`: method, path and flags of every endpoint, as the contract declares them. */
export function endpointsFile(): string {
  const rows = endpointList.map(
    ({ id, method, path, creates }) =>
      `  ${id}: { method: "${method}", path: "${path}", creates: ${creates} },`,
  );
  return `// Made from the contract by scripts/endpoints.ts: what a caller needs to know of every endpoint.
// prettier-ignore
export const endpoints = {
${rows.join("\n")}
} as const;
`;
}
