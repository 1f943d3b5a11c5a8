import { signedIn } from "@/app/shown";
import { RigForm } from "@/views/kit";

export default async function Page() {
  await signedIn();
  return <RigForm />;
}
