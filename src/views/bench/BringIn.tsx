"use client";
import { FileUp, Hash } from "lucide-react";
import { useChooseFiles } from "@/views/drop";
import { Button, Keys, buttonLook, Link } from "@/ui";

/** The two ways to a verdict that need nothing entered first. */
export function BringIn() {
  const choose = useChooseFiles();
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2 rounded-(--radius-panel) border border-dashed border-edge px-4 py-3">
      <Keys actions={[{ keys: "l", shown: "L", label: "choose logs", run: choose }]} />
      <p className="flex-1 text-[14px]">
        Drop logs anywhere on this window: the verdict first, the paperwork after.
      </p>
      <Button hint="L" onClick={choose}>
        <FileUp size={15} aria-hidden /> Choose logs
      </Button>
      <Link href="/look?way=tally" className={buttonLook()}>
        <Hash size={15} aria-hidden /> Tally by eye
      </Link>
    </div>
  );
}
