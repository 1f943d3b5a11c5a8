import { signedIn } from "@/app/door";
import { HouseRulesForm } from "@/views/kit";

export default async function Page() {
  await signedIn();
  return <HouseRulesForm />;
}
