"use client";
import type { SentBody } from "@/contract";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { hardnesses } from "@/core/kit";
import type { ListView, SystemRow, TitleListRow } from "@/core/records";
import {
  Button,
  ChoiceField,
  DataTable,
  onceOpen,
  EmptyPanel,
  Panel,
  buttonLook,
  say,
  type TableColumn,
  toast,
  Link,
} from "@/ui";
import { call } from "@/contract/client";
import { ListTools } from "./ListTools";
import { useListAddress } from "./useListAddress";

const PasteTitles = onceOpen(async () => (await import("./PasteTitles")).PasteTitles);

const columns: TableColumn<TitleListRow>[] = [
  {
    name: "Title",
    sort: "name",
    cell: ({ id, name }) => (
      <Link href={`/kit/titles/${id}`} className="font-semibold underline decoration-line underline-offset-4">
        {name}
      </Link>
    ),
  },
  { name: "System", sort: "system", cell: ({ system }) => system },
  { name: "Own rate", sort: "rate", cell: ({ nativeFps }) => <span className="figure">{nativeFps} fps</span> },
  { name: "Speed", cell: ({ tied }) => (tied ? "tied to the rate" : "free of the rate") },
  { name: "Hardness", sort: "hardness", cell: ({ hardness }) => hardness },
  { name: "Region", cell: ({ region }) => region },
  { name: "Jobs", cell: ({ jobs }) => <span className="figure">{jobs}</span> },
];

/** Titles on the shelf, with changes to many at once. */
export function TitleList({
  rows,
  total,
  next,
  query,
  systems,
}: ListView<TitleListRow> & { systems: SystemRow[] }) {
  const router = useRouter();
  const ask = useListAddress("/kit/titles", query);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [pasting, setPasting] = useState(false);
  const retired = query.filter === "retired";
  const change = async (ids: string[], body: Omit<SentBody<"changeTitles">, "ids">, undo?: () => void) => {
    const sent = await call("changeTitles", { body: { ids, ...body } });
    if (!sent.ok) return toast.error(sent.refusal.title, { description: sent.refusal.fix });
    setChosen(new Set());
    router.refresh();
    toast(
      `${say.count(sent.answer.changed, "title")} changed.`,
      undo && { action: { label: "Undo", onClick: undo } },
    );
  };
  const setHardness = (hardness: (typeof hardnesses)[number]) => {
    const ids = [...chosen];
    const before = rows.filter(({ id }) => chosen.has(id)).map(({ id, hardness: held }) => ({ id, held }));
    void change(ids, { hardness }, () =>
      hardnesses.forEach((each) => {
        const back = before.filter(({ held }) => held === each).map(({ id }) => id);
        if (back.length > 0) void change(back, { hardness: each });
      }),
    );
  };
  return (
    <Panel>
      <ListTools
        query={query}
        total={total}
        next={next}
        noun="title"
        filters={[
          ...hardnesses.map((value) => ({ value, label: value })),
          ...systems.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        ask={ask}
      >
        <Button onClick={() => setPasting(true)}>Paste titles</Button>
        <PasteTitles systems={systems} open={pasting} onOpenChange={setPasting} />
        {chosen.size > 0 && (
          <span className="flex items-center gap-2">
            <ChoiceField
              quiet
              label="Hardness of the chosen"
              value={null}
              placeholder={`Hardness of ${chosen.size}`}
              options={hardnesses.map((value) => ({ value, label: value }))}
              onChange={(value) => setHardness(hardnesses.find((each) => each === value) ?? "typical")}
            />
            <Button
              onClick={() => {
                const ids = [...chosen];
                void change(ids, { retired: !retired }, () => void change(ids, { retired }));
              }}
            >
              {retired ? "Put back" : "Retire"} {chosen.size}
            </Button>
          </span>
        )}
      </ListTools>
      {rows.length === 0 ? (
        <EmptyPanel
          title={query.search || query.filter ? "No title matches." : "No title yet."}
          action={
            <Link href="/kit/titles/new" className={buttonLook("lit")}>
              Add a title
            </Link>
          }
        >
          A title has its own rate, and a scene where it sinks.
        </EmptyPanel>
      ) : (
        <DataTable
          label="Titles"
          columns={columns}
          rows={rows}
          sort={query.sort}
          descending={query.descending}
          onSort={(sort, descending) => ask({ sort, descending })}
          onOpen={({ id }) => router.push(`/kit/titles/${id}`)}
          chosen={chosen}
          onChoose={setChosen}
        />
      )}
    </Panel>
  );
}
