import { GlossaryPage } from "@/views/glossary";

export default function Page() {
  return <GlossaryPage />;
}
