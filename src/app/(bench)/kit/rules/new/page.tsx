import { signedIn } from "@/app/shown";
import { HouseRulesForm } from "@/views/kit";

export default async function Page() {
  await signedIn();
  return <HouseRulesForm />;
}
