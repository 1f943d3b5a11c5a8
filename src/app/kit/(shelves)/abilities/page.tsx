import { shown } from "@/app/door";
import { listAbilities } from "@/server";
import { AbilitiesScreen } from "@/views/kit";

export default async function Page() {
  return shown(listAbilities, (view) => <AbilitiesScreen {...view} />);
}
