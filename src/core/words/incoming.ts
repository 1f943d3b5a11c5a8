import type { IncomingCodes } from "./incomingCodes";
import type { Sentences } from "./said";

/** Why a file is nothing that can be brought in, and what to do instead. */
export const incomingSentences: Sentences<IncomingCodes> = {
  "incoming.empty": () => "It is empty.",
  "incoming.picture": () => "It is a picture. A video of the screen can be measured; a picture can't.",
  "incoming.packed": ({ as }) => `It is packed (${as}). Unpack it, and bring in what is inside.`,
  "incoming.document": () => "It is a document (PDF), and holds no log that can be read.",
  "incoming.binary": () => "It holds no text that can be read, and no video.",
  "incoming.spoilt": ({ what, where, message }) =>
    `It calls itself a ${what}, and isn't whole: ${where === "" ? "the file" : where}: ${message}`,
  "incoming.tooLarge": () => "It is too large to be one of our files or a config file.",
  "incoming.neither": () => "Its lines are neither rows of figures nor settings with values.",
  "incoming.noSettings": () => "It holds no settings with values.",
  "incoming.spoiltConfig": ({ message }) => `It looks like a config file, and can't be read: ${message}.`,
  "incoming.unreadable": () => "It can't be read: it was moved, or is no file.",
};
