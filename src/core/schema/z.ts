// eslint-disable-next-line no-restricted-imports -- everybody else takes it from here
import { z } from "zod";
import { plainWords } from "./plainWords";

z.config({ customError: plainWords });

/** Zod, with refusals in words a person can act on: every schema is made with this one. */
export { z };
