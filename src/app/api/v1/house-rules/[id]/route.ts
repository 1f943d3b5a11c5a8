import { writes, type WithId } from "@/app/door";
import { changeHouseRules } from "@/server";

export const PUT = (request: Request, { params }: WithId) =>
  writes(request, async (body) => changeHouseRules((await params).id, body));
