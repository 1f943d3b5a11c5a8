import type { Metadata } from "next";
import { BesideScreen } from "@/views/beside";

export const metadata: Metadata = { title: "Two videos" };

export default function Page() {
  return <BesideScreen />;
}
