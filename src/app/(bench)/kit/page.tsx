import { signedIn } from "@/app/shown";
import { redirect } from "next/navigation";

export default async function Page() {
  await signedIn();
  redirect("/kit/rigs");
}
