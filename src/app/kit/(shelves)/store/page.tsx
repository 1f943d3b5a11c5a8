import { shown } from "@/app/door";
import { viewDemo } from "@/server";
import { StoreScreen } from "@/views/kit";

export default function Page() {
  return shown(viewDemo, (demo) => <StoreScreen demo={demo} />);
}
