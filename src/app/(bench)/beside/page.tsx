import { signedIn } from "@/app/shown";
import type { Metadata } from "next";
import { BesidePage } from "@/views/beside";

export const metadata: Metadata = { title: "Two videos" };

export default async function Page() {
  await signedIn();
  return <BesidePage />;
}
