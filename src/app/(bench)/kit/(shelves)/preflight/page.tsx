import { shown } from "@/app/shown";
import { viewPreflight } from "@/server";
import { PreflightPage } from "@/views/kit";

export default function Page() {
  return shown(viewPreflight, (items) => <PreflightPage items={items} />);
}
