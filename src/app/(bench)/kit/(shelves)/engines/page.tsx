import { shown } from "@/app/shown";
import { viewKit } from "@/server";
import { EngineList } from "@/views/kit";

export default function Page() {
  return shown(viewKit, ({ builds, systems }) => <EngineList builds={builds} systems={systems} />);
}
