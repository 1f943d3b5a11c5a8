import { shown } from "@/app/door";
import { viewHome } from "@/server";
import { BenchScreen } from "@/views/bench";

export default function Page() {
  return shown(viewHome, (view) => <BenchScreen {...view} />);
}
