export { brokenConstraint, database, isUnreachable } from "./connection";
export { migrations, migrator } from "./migrate";
export * from "./kit";
export * from "./lists";
export * from "./jobs";
export * from "./runs";
export * from "./bench";
export { claimSeed, releaseSeed } from "./seeds";
