import { shown } from "@/app/door";
import { viewPeople } from "@/server";
import { PeoplePage } from "@/views/people";

export default function Page() {
  return shown(viewPeople, (view) => <PeoplePage view={view} />, "owner");
}
