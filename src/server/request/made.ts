/** The answer of an endpoint that makes something: its id. */
export const made = async (id: Promise<string>): Promise<{ id: string }> => ({ id: await id });
