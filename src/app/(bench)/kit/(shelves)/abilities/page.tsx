import { shown } from "@/app/shown";
import { listAbilities } from "@/server";
import { AbilitiesPage } from "@/views/kit";

export default async function Page() {
  return shown(listAbilities, (view) => <AbilitiesPage {...view} />);
}
