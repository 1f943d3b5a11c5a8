import type { Metadata } from "next";
import { BesidePage } from "@/views/beside";

export const metadata: Metadata = { title: "Two videos" };

export default function Page() {
  return <BesidePage />;
}
