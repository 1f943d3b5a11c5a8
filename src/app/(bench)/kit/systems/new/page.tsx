import { signedIn } from "@/app/shown";
import { SystemForm } from "@/views/kit";

export default async function Page() {
  await signedIn();
  return <SystemForm />;
}
