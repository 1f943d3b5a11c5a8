import { shown } from "@/app/door";
import { viewHome } from "@/server";
import { BenchPage } from "@/views/bench";

export default function Page() {
  return shown(viewHome, (view) => <BenchPage {...view} />);
}
