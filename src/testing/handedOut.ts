import type { HandedOut } from "@/contract";

/** What a file that is handed out holds, as text. */
export const textOf = async (content: HandedOut["content"]): Promise<string> => new Response(content).text();
