import { shown } from "@/app/shown";
import { viewDemo } from "@/server";
import { StorePage } from "@/views/kit";

export default function Page() {
  return shown(viewDemo, (demo) => <StorePage demo={demo} />);
}
