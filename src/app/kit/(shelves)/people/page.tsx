import { shown } from "@/app/door";
import { viewPeople } from "@/server";
import { PeopleScreen } from "@/views/people";

export default function Page() {
  return shown(viewPeople, (view) => <PeopleScreen view={view} />);
}
