import type { ReactNode } from "react";
import { KitFrame } from "@/views/kit";

export default function Layout({ children }: { children: ReactNode }) {
  return <KitFrame>{children}</KitFrame>;
}
