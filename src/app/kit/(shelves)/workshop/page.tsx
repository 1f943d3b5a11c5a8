import { shown } from "@/app/door";
import { viewWorkshop } from "@/server";
import { WorkshopScreen } from "@/views/people";

export default function Page() {
  return shown(viewWorkshop, (view) => <WorkshopScreen view={view} />);
}
