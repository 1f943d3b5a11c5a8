"use client";
import { Button } from "@/ui";

export default function Failure({ reset }: { reset: () => void }) {
  return (
    <div role="alert" className="p-8">
      <h1 className="text-xl font-semibold">This page could not be shown.</h1>
      <p className="my-3 text-soft">
        What was kept is kept. Try again; if it comes back, the server&apos;s log says more.
      </p>
      <Button onClick={reset}>Try again</Button>
    </div>
  );
}
