import { Fragment, jsx as make, jsxs as makeMany } from "react/jsx-runtime";
import { textKeptTogether } from "./unbroken";

export type { JSX } from "react/jsx-runtime";
export { Fragment };

/**
 * What every element of the pages is made by (tsconfig's jsxImportSource): React's own, with figures kept to
 * their units.
 */
export const jsx: typeof make = (type, props, key) => make(type, textKeptTogether(props), key);
export const jsxs: typeof makeMany = (type, props, key) => makeMany(type, textKeptTogether(props), key);
