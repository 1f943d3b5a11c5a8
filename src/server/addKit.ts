import { newEngineSchema, newRigSchema, newSystemSchema, newTitleSchema } from "@/core/kit";
import * as data from "@/data";

/** Each adds one thing to the kit, checked at the door, and resolves with its id. */
export const addRig = async (input: unknown) => data.addRig(newRigSchema.parse(input));
export const addSystem = async (input: unknown) => data.addSystem(newSystemSchema.parse(input));
export const addTitle = async (input: unknown) => data.addTitle(newTitleSchema.parse(input));
export const addEngine = async (input: unknown) => (await data.addEngine(newEngineSchema.parse(input))).id;
