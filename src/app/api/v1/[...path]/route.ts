import { answerDoor } from "@/app/door";

export const dynamic = "force-dynamic";

/** Every door of the contract; what each takes, does and gives is said there. */
const answer = async (request: Request, { params }: { params: Promise<{ path: string[] }> }) =>
  answerDoor(request, (await params).path);

export { answer as GET, answer as POST, answer as PUT, answer as PATCH, answer as DELETE };
