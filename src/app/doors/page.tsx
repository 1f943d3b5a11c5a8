import { doorPages } from "@/contract";
import { DoorsScreen } from "@/views/doors";

export default function Page() {
  return <DoorsScreen doors={doorPages()} />;
}
