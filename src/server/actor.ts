/** Who does something: this machine; later a person or a device. Kept with everything that is changed. */
export interface Actor {
  kind: "machine";
  name: string;
}

/** Whoever sits at the machine that the application runs on. */
export const thisMachine: Actor = { kind: "machine", name: "this machine" };
/** The application itself, at work in the background. */
export const theApplication: Actor = { kind: "machine", name: "the application" };
