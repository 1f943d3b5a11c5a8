import { signedIn } from "@/app/shown";
import { endpointPages } from "@/contract";
import { ApiPage } from "@/views/api";

export default async function Page() {
  await signedIn();
  return <ApiPage endpoints={endpointPages()} />;
}
