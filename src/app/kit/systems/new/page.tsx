import { SystemForm } from "@/views/kit";

export default function Page() {
  return <SystemForm />;
}
