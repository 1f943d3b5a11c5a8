import { shown } from "@/app/shown";
import { viewSystems } from "@/server";
import { EngineForm } from "@/views/kit";

export default function Page() {
  return shown(viewSystems, (systems) => <EngineForm systems={systems} />);
}
