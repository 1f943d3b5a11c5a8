import { shown } from "@/app/shown";
import { viewWorkshop } from "@/server";
import { WorkshopPage } from "@/views/people";

export default function Page() {
  return shown(viewWorkshop, (view) => <WorkshopPage view={view} />);
}
