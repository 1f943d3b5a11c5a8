import { signedIn } from "@/app/door";
import { doorPages } from "@/contract";
import { DoorsPage } from "@/views/doors";

export default async function Page() {
  await signedIn();
  return <DoorsPage doors={doorPages()} />;
}
