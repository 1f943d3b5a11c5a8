/**
 * The shapes in which kept things are handed from the database to a page: types only.
 * Declared once here, so that repositories, use-cases and views can't drift apart.
 */
export * from "./jobs";
export * from "./kit";
export * from "./lists";
export * from "./campaigns";
export * from "./log";
export * from "./board";
export * from "./others";
export * from "./people";
export * from "./devices";
export * from "./unattended";
export * from "./predictions";
export * from "./deeds";
