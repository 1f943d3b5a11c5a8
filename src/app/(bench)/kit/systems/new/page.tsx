import { signedIn } from "@/app/door";
import { SystemForm } from "@/views/kit";

export default async function Page() {
  await signedIn();
  return <SystemForm />;
}
