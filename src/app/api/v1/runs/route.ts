import { takesBytes } from "@/app/door";
import { importRun } from "@/server";

/** Sixteen million frames. */
const mostTraceBytes = 64 * 1024 * 1024;

export const POST = (request: Request) => takesBytes(request, mostTraceBytes, importRun);
