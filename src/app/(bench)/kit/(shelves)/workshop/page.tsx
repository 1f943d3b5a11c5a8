import { shown } from "@/app/door";
import { viewWorkshop } from "@/server";
import { WorkshopPage } from "@/views/people";

export default function Page() {
  return shown(viewWorkshop, (view) => <WorkshopPage view={view} />);
}
