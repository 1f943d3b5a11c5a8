import { shown } from "@/app/shown";
import { viewHome } from "@/server";
import { BenchPage } from "@/views/bench";

export default function Page() {
  return shown(viewHome, (view) => <BenchPage {...view} />);
}
