import { shown } from "@/app/door";
import { viewKit } from "@/server";
import { TitleForm } from "@/views/kit";

export default function Page() {
  return shown(viewKit, ({ systems }) => <TitleForm systems={systems} />);
}
