import { shown } from "@/app/shown";
import { viewKit } from "@/server";
import { HouseRulesList } from "@/views/kit";

export default function Page() {
  return shown(viewKit, ({ houseRules }) => <HouseRulesList houseRules={houseRules} />);
}
