"use client";
import { useRouter } from "next/navigation";
import { publicationHtml, publicationMarkdown, type PageFonts, type Publication } from "@/core/publication";
import { Switch, csvOf } from "@/ui";
import { HandedOn } from "./HandedOn";

/** A campaign, a device or the board as it is handed to others; what is left out is chosen first. */
export function PublishScreen({
  publication,
  fonts,
  asked,
}: {
  publication: Publication;
  fonts: PageFonts;
  asked: { of: string; id: string; names: string; notes: string };
}) {
  const router = useRouter();
  const put = (changed: Partial<typeof asked>) =>
    router.replace(`/publish?${new URLSearchParams({ ...asked, ...changed })}`);
  const [main] = publication.tables;
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
      preview={publicationHtml(publication, fonts, { sorts: false })}
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
        {
          key: "V",
          name: "CSV",
          ending: "csv",
          type: "text/csv;charset=utf-8",
          make: () => csvOf(main?.columns ?? [], main?.rows ?? []),
        },
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
