"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { BuildRow, HouseRulesRow, SystemRow } from "@/core/records";
import { DataTable, Panel, say, type TableColumn, Link } from "@/ui";

/** Lists short enough to be sorted here: no paging, sorted by name. */
function ShortList<Row extends { id: string; name: string }>({
  label,
  path,
  rows,
  columns,
}: {
  label: string;
  path: string;
  rows: Row[];
  columns: TableColumn<Row>[];
}) {
  const router = useRouter();
  const [descending, setDescending] = useState(false);
  const sorted = [...rows].sort((a, b) => a.name.localeCompare(b.name) * (descending ? -1 : 1));
  const named: TableColumn<Row> = {
    name: "Name",
    sort: "name",
    cell: ({ id, name }) => (
      <Link href={`${path}/${id}`} className="font-semibold underline decoration-line underline-offset-4">
        {name}
      </Link>
    ),
  };
  return (
    <Panel>
      <DataTable
        label={label}
        columns={[named, ...columns]}
        rows={sorted}
        sort="name"
        descending={descending}
        onSort={(_, down) => setDescending(down)}
        onOpen={({ id }) => router.push(`${path}/${id}`)}
      />
    </Panel>
  );
}

export function SystemList({ systems }: { systems: SystemRow[] }) {
  return (
    <ShortList
      label="Systems"
      path="/kit/systems"
      rows={systems}
      columns={[
        {
          name: "Picture",
          cell: ({ screens }) => (
            <span className="figure">
              {screens.map(({ width, height }) => `${width}×${height}`).join(" + ")}
            </span>
          ),
        },
        {
          name: "Rates",
          cell: ({ rates }) => <span className="figure">{rates.map(({ hz }) => hz).join(" or ")} Hz</span>,
        },
        { name: "Note", cell: ({ note }) => note },
      ]}
    />
  );
}

export function EngineList({ builds, systems }: { builds: BuildRow[]; systems: SystemRow[] }) {
  const engines = [
    ...new Map(
      builds.map((build) => [
        build.engineId,
        { id: build.engineId, name: build.engine, systemIds: build.systemIds },
      ]),
    ).values(),
  ];
  return (
    <ShortList
      label="Engines"
      path="/kit/engines"
      rows={engines}
      columns={[
        {
          name: "Builds",
          cell: ({ id }) =>
            builds
              .filter(({ engineId }) => engineId === id)
              .map(({ version, branch }) => `${version} ${branch}`)
              .join(", "),
        },
        {
          name: "Systems",
          cell: ({ systemIds }) =>
            systems
              .filter(({ id }) => systemIds.includes(id))
              .map(({ name }) => name)
              .join(", "),
        },
      ]}
    />
  );
}

export function HouseRulesList({ houseRules }: { houseRules: HouseRulesRow[] }) {
  return (
    <ShortList
      label="House rules"
      path="/kit/rules"
      rows={houseRules}
      columns={[
        {
          name: "Steady",
          cell: ({ rules: { steady } }) =>
            `speed ${steady.speedPercent} %, full-speed time ${steady.fullSpeedTimePercent} %, ${say.count(steady.hitchesPerMinute, "hitch", "hitches")}/min`,
        },
        {
          name: "Flickers",
          cell: ({ rules: { flickers } }) =>
            `speed ${flickers.speedPercent} %, full-speed time ${flickers.fullSpeedTimePercent} %`,
        },
        { name: "Dims", cell: ({ rules: { dims } }) => `speed ${dims.speedPercent} %` },
        {
          name: "May change",
          cell: ({ rules: { mayChange } }) =>
            [mayChange.clocks && "clocks", mayChange.powerMode && "power mode", mayChange.picture && "picture"]
              .filter(Boolean)
              .join(", "),
        },
        { name: "Margin", cell: ({ rules }) => <span className="figure">{rules.marginPercent} %</span> },
      ]}
    />
  );
}
