import { signedIn } from "@/app/door";
import { RigForm } from "@/views/kit";

export default async function Page() {
  await signedIn();
  return <RigForm />;
}
