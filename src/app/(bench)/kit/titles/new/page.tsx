import { shown } from "@/app/shown";
import { viewSystems } from "@/server";
import { TitleForm } from "@/views/kit";

export default function Page() {
  return shown(viewSystems, (systems) => <TitleForm systems={systems} />);
}
