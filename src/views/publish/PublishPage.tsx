"use client";
import { useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useMemo } from "react";
import { call } from "@/contract/client";
import { publicationHtml, publicationMarkdown, type PageFonts, type Publication } from "@/core/publication";
import { csvOf } from "@/core/document";
import { ProblemPanel, Switch, fileNameOf } from "@/ui";
import { HandedOn } from "./HandedOn";
import { useShareLink } from "./useLink";

interface Asked {
  of: string;
  id: string;
  names: string;
  notes: string;
}

/** What is handed on, made when it is looked at: a board of many titles isn't sent twice. */
export function PublishPage({ asked }: { asked: Asked }) {
  const made = useQuery({
    queryKey: ["publication", asked],
    queryFn: async () => {
      const [publication, fonts] = await Promise.all([
        call("publish", { query: { ...asked } }),
        call("pageFonts"),
      ]);
      if (!publication.ok) return publication;
      return fonts.ok
        ? { ok: true as const, answer: { publication: publication.answer, fonts: fonts.answer } }
        : fonts;
    },
    staleTime: 0,
  });
  if (!made.data)
    return (
      <div className="p-6">
        <h1 className="text-xl font-semibold">Publish</h1>
        <p className="text-soft" role="status">
          Laying out what is handed on …
        </p>
      </div>
    );
  if (!made.data.ok)
    return <ProblemPanel title={made.data.refusal.title} fix={made.data.refusal.fix} retry={false} />;
  return <LaidOut {...made.data.answer} asked={asked} />;
}

/** A campaign, a device or the board as it is handed to others; what is left out is chosen first. */
function LaidOut({ publication, fonts, asked }: { publication: Publication; fonts: PageFonts; asked: Asked }) {
  const router = useRouter();
  const put = (changed: Partial<typeof asked>) =>
    router.replace(`/publish?${new URLSearchParams({ ...asked, ...changed })}`);
  const link = useShareLink({
    what: publication.kind,
    ofId: asked.of === "board" ? "" : asked.id,
    names: asked.names !== "no",
    notes: asked.notes !== "no",
  });
  const preview = useMemo(() => publicationHtml(publication, fonts, { sorts: false }), [publication, fonts]);
  const back =
    asked.of === "campaign"
      ? `/campaigns/${asked.id}`
      : asked.of === "device"
        ? `/kit/rigs/${asked.id}`
        : "/board";
  return (
    <HandedOn
      heading={`Publish: ${publication.name}`}
      name={publication.name}
      note="As others will read it: one page with its own fonts that needs no network. Look it over before you hand it on."
      back={back}
      preview={preview}
      actions={[{ keys: "l", shown: "L", label: "give away a read-only link", name: "Link", run: link }]}
      forms={[
        {
          key: "P",
          name: "Page",
          ending: "html",
          type: "text/html",
          make: () => publicationHtml(publication, fonts),
        },
        {
          key: "M",
          name: "Markdown",
          ending: "md",
          type: "text/markdown",
          make: () => publicationMarkdown(publication),
        },
        // A table a file: tables of several widths in one are no CSV (RFC 4180).
        ...publication.tables.map(({ name, columns, rows }, at) => ({
          key: at === 0 ? "V" : null,
          name: publication.tables.length === 1 ? "CSV" : `CSV: ${name}`,
          ending: at === 0 ? "csv" : `${fileNameOf(name)}.csv`,
          type: "text/csv;charset=utf-8",
          make: () => csvOf(columns, rows),
        })),
        {
          key: "J",
          name: "JSON",
          ending: "json",
          type: "application/json",
          make: () => `${JSON.stringify(publication, null, 2)}\n`,
        },
      ]}
    >
      <div className="mb-3 flex flex-wrap gap-6 text-[13px]">
        <Switch
          label="devices by their names"
          checked={asked.names !== "no"}
          onChange={(on) => put({ names: on ? "yes" : "no" })}
        />
        <Switch
          label="notes and workarounds"
          checked={asked.notes !== "no"}
          onChange={(on) => put({ notes: on ? "yes" : "no" })}
        />
      </div>
    </HandedOn>
  );
}
