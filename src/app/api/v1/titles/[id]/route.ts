import { writes, type WithId } from "@/app/door";
import { changeTitle } from "@/server";

export const PUT = (request: Request, { params }: WithId) =>
  writes(request, async (body) => changeTitle((await params).id, body));
