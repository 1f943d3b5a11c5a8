import { shown } from "@/app/shown";
import { viewPeople } from "@/server";
import { PeoplePage } from "@/views/people";

export default function Page() {
  return shown(viewPeople, (view) => <PeoplePage view={view} />, "owner");
}
