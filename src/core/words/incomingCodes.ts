/** Why a file is nothing that can be brought in; core/incoming lies above this folder, for it reads recipes. */
export interface IncomingCodes {
  "incoming.empty": undefined;
  "incoming.picture": undefined;
  "incoming.packed": { as: "zip" | "gzip" };
  "incoming.document": undefined;
  "incoming.binary": undefined;
  "incoming.spoilt": { what: string; where: string; message: string };
  "incoming.tooLarge": undefined;
  "incoming.neither": undefined;
  "incoming.noSettings": undefined;
  "incoming.spoiltConfig": { message: string };
  "incoming.unreadable": undefined;
}
