import { answerApi } from "@/app/api/answer";

export const dynamic = "force-dynamic";

/** Every endpoint of the contract; what each takes, does and gives is said there. */
const answer = async (request: Request, { params }: { params: Promise<{ path: string[] }> }) =>
  answerApi(request, (await params).path);

export { answer as GET, answer as POST, answer as PUT, answer as PATCH, answer as DELETE };
