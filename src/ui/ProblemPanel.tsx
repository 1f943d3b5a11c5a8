"use client";
import { TriangleAlert } from "lucide-react";
import { useRouter } from "next/navigation";
import { useEffect } from "react";
import { Button } from "./Button";

/** A page that can't be shown: what happened, and what to do; tries again by itself where waiting helps. */
export function ProblemPanel({ title, fix, retry = false }: { title: string; fix: string; retry?: boolean }) {
  const router = useRouter();
  useEffect(() => {
    if (!retry) return;
    const timer = setInterval(() => router.refresh(), 4000);
    return () => clearInterval(timer);
  }, [retry, router]);
  return (
    <div
      role="alert"
      className="m-4 flex items-start gap-3 rounded-(--radius-panel) border border-caution bg-panel p-4"
    >
      <TriangleAlert className="mt-0.5 shrink-0 text-caution" size={20} aria-hidden />
      <div>
        <h1 className="font-semibold">{title}</h1>
        <p className="text-soft">{fix}</p>
        {retry && (
          <Button className="mt-3" onClick={() => router.refresh()}>
            Try again now
          </Button>
        )}
      </div>
    </div>
  );
}
