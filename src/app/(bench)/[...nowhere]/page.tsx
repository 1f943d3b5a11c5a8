import { notFound } from "next/navigation";

/** Any other address: said inside the frame. */
export default function Page(): never {
  notFound();
}
