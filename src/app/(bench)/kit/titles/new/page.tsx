import { shown } from "@/app/door";
import { viewSystems } from "@/server";
import { TitleForm } from "@/views/kit";

export default function Page() {
  return shown(viewSystems, (systems) => <TitleForm systems={systems} />);
}
