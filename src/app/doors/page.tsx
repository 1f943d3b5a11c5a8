import { doorPages } from "@/contract";
import { DoorsPage } from "@/views/doors";

export default function Page() {
  return <DoorsPage doors={doorPages()} />;
}
