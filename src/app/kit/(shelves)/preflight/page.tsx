import { shown } from "@/app/door";
import { viewPreflight } from "@/server";
import { PreflightScreen } from "@/views/kit";

export default function Page() {
  return shown(viewPreflight, (items) => <PreflightScreen items={items} />);
}
