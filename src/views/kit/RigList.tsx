"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { ListView, RigListRow } from "@/core/records";
import { Button, DataTable, EmptyPanel, Panel, buttonLook, type TableColumn, toast, Link } from "@/ui";
import { call } from "@/contract/client";
import { ListTools } from "./ListTools";
import { useListAddress } from "./useListAddress";

const columns: TableColumn<RigListRow>[] = [
  {
    name: "Rig",
    sort: "name",
    cell: ({ id, name }) => (
      <Link href={`/kit/rigs/${id}`} className="font-semibold underline decoration-line underline-offset-4">
        {name}
      </Link>
    ),
  },
  { name: "Kind", sort: "kind", cell: ({ spec }) => spec.kind },
  {
    name: "Processor",
    cell: ({ spec }) => (
      <span className="figure">
        {spec.processor.clusters.map(({ cores, boostGhz }) => `${cores} to ${boostGhz} GHz`).join(", ")}
      </span>
    ),
  },
  {
    name: "Memory",
    sort: "memory",
    cell: ({ spec }) => (
      <span className="figure">{spec.memoryGb === null ? "not known" : `${spec.memoryGb} GB`}</span>
    ),
  },
  {
    name: "Displays",
    cell: ({ spec }) =>
      spec.displays
        .map(
          ({ name, width, height, refreshHz }) =>
            `${name}${width === null || height === null ? "" : ` ${width}×${height}`}, ${refreshHz.join("/")} Hz`,
        )
        .join("; "),
  },
  {
    name: "Power modes",
    cell: ({ spec }) =>
      spec.powerModes.map(({ name, watts }) => (watts ? `${name} ${watts} W` : name)).join(", "),
  },
  { name: "Revision", cell: ({ revision }) => <span className="figure">{revision}</span> },
  { name: "Jobs", cell: ({ jobs }) => <span className="figure">{jobs}</span> },
];

/** Rigs on the shelf; a retired one keeps its runs. */
export function RigList({ rows, total, next, query }: ListView<RigListRow>) {
  const router = useRouter();
  const ask = useListAddress("/kit/rigs", query);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const retired = query.filter === "retired";
  const change = async (ids: string[], away: boolean, undoable = true) => {
    const sent = await call("changeRigs", { body: { ids, retired: away } });
    if (!sent.ok) return toast.error(sent.refusal.title, { description: sent.refusal.fix });
    setChosen(new Set());
    router.refresh();
    if (undoable)
      toast(away ? "Retired; runs stay." : "Back on the shelf.", {
        action: { label: "Undo", onClick: () => void change(ids, !away, false) },
      });
  };
  const duplicate = async () => {
    for (const id of chosen) {
      const sent = await call("duplicateRig", { id });
      if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    }
    setChosen(new Set());
    router.refresh();
  };
  return (
    <Panel>
      <ListTools query={query} total={total} next={next} noun="rig" filters={[]} ask={ask}>
        {chosen.size > 0 && (
          <span className="flex gap-2">
            <Button onClick={() => void duplicate()}>Duplicate {chosen.size}</Button>
            <Button onClick={() => void change([...chosen], !retired)}>
              {retired ? "Put back" : "Retire"} {chosen.size}
            </Button>
          </span>
        )}
      </ListTools>
      {rows.length === 0 ? (
        <EmptyPanel
          title={query.search || query.filter ? "No rig matches." : "No rig yet."}
          action={
            <Link href="/kit/rigs/new" className={buttonLook("lit")}>
              Add a rig
            </Link>
          }
        >
          A rig is a device as you tune it: hardware, displays, power modes, cooling.
        </EmptyPanel>
      ) : (
        <DataTable
          label="Rigs"
          columns={columns}
          rows={rows}
          sort={query.sort}
          descending={query.descending}
          onSort={(sort, descending) => ask({ sort, descending })}
          onOpen={({ id }) => router.push(`/kit/rigs/${id}`)}
          chosen={chosen}
          onChoose={setChosen}
        />
      )}
    </Panel>
  );
}
