import { programRights, type Who } from "@/contract";
import type { Rights } from "@/core/records";

/**
 * Who does something: this machine, a person who signed in, or a program with a token. Kept with everything
 * that is changed.
 */
export interface Actor {
  kind: "machine" | "person" | "program";
  name: string;
}

/** An actor at the endpoint, with what it may. */
export interface Asker extends Actor {
  may: Rights;
  /** Its session or its token, where it has one. */
  id: string;
  /** The rig that a device's token is bound to: it brings runs of that rig, and does nothing else. */
  rigId?: string;
}

/** Whoever sits at the machine that the application runs on. */
export const thisMachine: Asker = { kind: "machine", name: "this machine", may: "tunes", id: "" };
/** Whoever calls an endpoint that is open to anybody. */
export const nobody: Asker = { kind: "person", name: "nobody", may: "metrics", id: "" };
/** The application itself, at work in the background. */
export const theApplication: Actor = { kind: "machine", name: "the application" };

/** Whether whoever asks has to sign in: where the application answers more than its own machine. */
export const signInAsked = (): boolean => process.env.LAMP_SIGN_IN === "1";

/** Who calls, from where, and whether nobody between can read it. */
export interface Caller {
  asker: Asker | null;
  address: string;
  secure: boolean;
}

/**
 * In which the application's own server says who calls; what comes in under this name is thrown away there.
 */
export const callerHeader = "x-lamp-caller";

/** Who calls, as the server in front found out. Without one, only this machine is there to call. */
export function callerOf(headers: { get: (name: string) => string | null }): Caller {
  const told = headers.get(callerHeader);
  if (!told) return { asker: signInAsked() ? null : thisMachine, address: "", secure: false };
  return JSON.parse(decodeURIComponent(told)) as Caller;
}

/** Whether somebody may what an endpoint or a page asks for. */
export function mayPass(asker: Asker | null, who: Who): boolean {
  if (who === "anybody") return true;
  if (asker === null) return false;
  if (who === "device" || asker.rigId !== undefined) return who === "device" && asker.rigId !== undefined;
  if (who === "owner") return asker.may === "tunes" && asker.kind !== "program";
  return programRights.indexOf(asker.may) >= programRights.indexOf(who);
}
