import { RigForm } from "@/views/kit";

export default function Page() {
  return <RigForm />;
}
