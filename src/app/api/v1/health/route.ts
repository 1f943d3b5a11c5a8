import { reads } from "@/app/door";
import { viewHealth } from "@/server";

export const dynamic = "force-dynamic";
export const GET = () => reads(viewHealth);
