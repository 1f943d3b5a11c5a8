import { Fragment, jsxDEV as make } from "react/jsx-dev-runtime";
import { textKeptTogether } from "./unbroken";

export type { JSX } from "react/jsx-runtime";
export { Fragment };

/** As jsx-runtime, while developing and in tests. */
export const jsxDEV: typeof make = (type, props, ...rest) => make(type, textKeptTogether(props), ...rest);
