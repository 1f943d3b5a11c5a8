import { shown } from "@/app/shown";
import { viewSystems } from "@/server";
import { SystemList } from "@/views/kit";

export default function Page() {
  return shown(viewSystems, (systems) => <SystemList systems={systems} />);
}
