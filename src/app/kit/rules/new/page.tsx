import { HouseRulesForm } from "@/views/kit";

export default function Page() {
  return <HouseRulesForm />;
}
