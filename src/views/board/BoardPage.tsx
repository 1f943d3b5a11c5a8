"use client";
import { useInfiniteQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { clsx } from "clsx";
import { useRouter } from "next/navigation";
import { memo, useMemo, useRef, useState, type CSSProperties } from "react";
import { call } from "@/contract/client";
import { hardnesses } from "@/core/kit";
import type { StartingPoint } from "@/core/predict";
import { grades } from "@/core/verdict";
import type {
  BoardAsked,
  BoardCell,
  BoardShare,
  BoardTitle,
  BoardView,
  OtherPublication,
} from "@/core/records";
import {
  boardShareWords,
  calibrationWords,
  foreseenWords,
  gradeWords,
  overruledWords,
  sureWords,
} from "@/core/words";
import {
  Button,
  ChoiceField,
  EmptyPanel,
  KeyHint,
  Keys,
  Panel,
  SearchForm,
  TableFrame,
  buttonLook,
  say,
  Link,
} from "@/ui";
import { OthersPanel } from "@/views/publish";
import { useForeseenCells } from "./useForeseenCells";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

const addressOf = (asked: Partial<BoardAsked>) => {
  const query = new URLSearchParams(
    Object.entries(asked).filter(([key, value]) => value !== "" && key !== "cursor"),
  );
  return query.size > 0 ? `/board?${query}` : "/board";
};

/** How titles fare over rigs: systems first, titles below, each a step from its runs. */
export function BoardPage({ view, others }: { view: BoardView; others: OtherPublication[] }) {
  const router = useRouter();
  const { rigs, systems, shares, query } = view;
  const [search, setSearch] = useState(query.search);
  const field = useRef<HTMLInputElement>(null);
  const ask = (changed: Partial<BoardAsked>) =>
    router.push(addressOf({ ...query, search, ...changed }), { scroll: false });
  const isAsked = query.search !== "" || query.system !== "" || query.hardness !== "";
  if (rigs.length === 0 || systems.length === 0)
    return (
      <div className="mx-auto max-w-6xl p-5">
        <h1 className="mb-4 text-xl font-semibold">Board</h1>
        <EmptyPanel
          title="Nothing to show yet."
          action={
            <Link href="/kit" className={buttonLook("lit")}>
              Fill the shelves
            </Link>
          }
        >
          Once titles are run on rigs, every system and title stands here with its light on each.
        </EmptyPanel>
      </div>
    );
  return (
    <div className="mx-auto max-w-[1400px] p-5">
      <Keys
        actions={[
          { keys: "/", shown: "/", label: "find a title", run: () => field.current?.focus() },
          { keys: "n", shown: "N", label: "plan a campaign", run: () => router.push("/campaigns/new") },
          { keys: "b", shown: "B", label: "best by system", run: () => router.push("/board/best") },
          { keys: "u", shown: "U", label: "publish", run: () => router.push("/publish?of=board") },
        ]}
      />
      <header className="mb-4 flex flex-wrap items-center gap-4">
        <div>
          <h1 className="text-xl font-semibold">Board</h1>
          <p className="text-[13px] text-soft">
            Every title&apos;s light on every rig, by the newest work on it there. Dotted: not run.
          </p>
        </div>
        <Link href="/board/best" className={`${buttonLook()} ml-auto`}>
          Best by system <KeyHint>B</KeyHint>
        </Link>
        <Link href="/publish?of=board" className={buttonLook()}>
          Publish <KeyHint>U</KeyHint>
        </Link>
      </header>
      {query.system === "" && query.search === "" && query.hardness === "" && (
        <Panel title="Systems" className="mb-4">
          <Systems rigs={rigs} systems={systems} shares={shares} onSystem={(system) => ask({ system })} />
        </Panel>
      )}
      <SearchForm
        field={field}
        label="Find a title"
        placeholder="find a title"
        value={search}
        onChange={setSearch}
        onSend={() => ask({ search })}
      >
        <div className="w-44">
          <ChoiceField
            label="System"
            value={query.system || "all"}
            options={[
              { value: "all", label: "every system" },
              ...systems.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChange={(system) => ask({ system: system === "all" ? "" : system })}
          />
        </div>
        <div className="w-40">
          <ChoiceField
            label="Hardness"
            value={query.hardness || "all"}
            options={[
              { value: "all", label: "easy to hard" },
              ...hardnesses.map((value) => ({ value, label: value })),
            ]}
            onChange={(hardness) => ask({ hardness: hardness === "all" ? "" : hardness })}
          />
        </div>
        {isAsked && (
          <Button
            look="quiet"
            onClick={() => {
              setSearch("");
              router.push("/board");
            }}
          >
            Show all
          </Button>
        )}
        <span className="ml-auto text-[13px] text-soft">{say.count(view.total, "title")}</span>
      </SearchForm>
      {view.total === 0 ? (
        <EmptyPanel title="No title by this filter.">Other words, or fewer filters, may find some.</EmptyPanel>
      ) : (
        <Titles view={view} />
      )}
      <OthersPanel rows={others} />
    </div>
  );
}

const segments = {
  steady: "bg-lit",
  flickers: "bg-lit/70",
  dims: "bg-lit/40",
  gutters: "bg-soft/60",
  dark: "bg-ground",
};

function Systems({
  rigs,
  systems,
  shares,
  onSystem,
}: Pick<BoardView, "rigs" | "systems" | "shares"> & { onSystem: (id: string) => void }) {
  const shareOf = (systemId: string, rigId: string) =>
    shares.find((share) => share.systemId === systemId && share.rigId === rigId);
  return (
    <TableFrame name="Systems by rigs" cards>
      <table aria-label="Systems by rigs" className="w-full text-left text-[13px]">
        <thead className="text-[12px] text-soft">
          <tr>
            <th className="px-2 py-1.5 font-normal">System</th>
            {rigs.map(({ id, name }) => (
              <th key={id} className="px-2 font-normal" dir="auto">
                <Link
                  href={`/publish?${new URLSearchParams({ of: "device", id })}`}
                  title={`Publish what ${name} manages`}
                  className="underline decoration-line underline-offset-4 hover:decoration-text"
                >
                  {name}
                </Link>
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="divide-y divide-line">
          {systems
            .filter(({ titles }) => titles > 0)
            .map(({ id, name, titles }) => (
              <tr key={id}>
                <th scope="row" className="px-2 py-2 text-left font-normal">
                  <button
                    type="button"
                    onClick={() => onSystem(id)}
                    className="text-left underline decoration-line underline-offset-4 hover:decoration-text"
                    dir="auto"
                  >
                    {name}
                  </button>
                  <span className="block text-[12px] text-soft">{say.count(titles, "title")}</span>
                </th>
                {rigs.map((rig) => (
                  <td key={rig.id} className="px-2 align-top">
                    <ShareCell share={shareOf(id, rig.id)} titles={titles} />
                  </td>
                ))}
              </tr>
            ))}
        </tbody>
      </table>
    </TableFrame>
  );
}

/** A bar of all titles of a system, its lit part by verdict, what wasn't run dotted; in words below. */
function ShareCell({ share, titles }: { share: BoardShare | undefined; titles: number }) {
  const judged = grades.flatMap((grade) => {
    const n = share?.grades[grade] ?? 0;
    return n > 0 ? [{ grade, n }] : [];
  });
  if (judged.length === 0)
    return (
      <span className="inline-flex items-center gap-1.5 py-2 text-soft">
        <VerdictLamp grade={null} size={16} />
      </span>
    );
  const done = judged.reduce((sum, { n }) => sum + n, 0);
  return (
    <div className="min-w-28 py-2">
      <div className="mb-1 flex h-2.5 overflow-hidden rounded-full border border-line" aria-hidden>
        {judged.map(({ grade, n }) => (
          <span key={grade} className={segments[grade]} style={{ width: `${(100 * n) / titles}%` }} />
        ))}
        {done < titles && <span className="flex-1 border-l border-dotted border-soft" />}
      </div>
      <span className="figure block text-[12px]">
        {judged.map(({ grade, n }) => `${n} ${gradeWords[grade].name}`).join(", ")}
      </span>
      <span className="figure block text-[12px] text-soft">
        {share && boardShareWords(share.holds, share.grades.steady ?? 0, done, titles)}
      </span>
    </div>
  );
}

const rowHeight = 58;

function Titles({ view }: { view: BoardView }) {
  const { query, rigs } = view;
  const { cursor: _cursor, ...asked } = query;
  const pages = useInfiniteQuery({
    queryKey: ["board", asked],
    initialPageParam: "",
    queryFn: async ({ pageParam }) => {
      const sent = await call("viewBoardTitles", { query: { ...asked, cursor: pageParam } });
      if (!sent.ok) throw new Error(sent.refusal.title);
      return sent.answer;
    },
    getNextPageParam: ({ next }) => next ?? undefined,
    initialData: { pages: [view], pageParams: [""] },
  });
  const rows = useMemo(() => pages.data.pages.flatMap((page) => page.rows), [pages.data]);
  const foreseen = useForeseenCells(rows, rigs);
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => rowHeight,
    overscan: 6,
    onChange: ({ range }) => {
      if (range && range.endIndex > rows.length - 40 && pages.hasNextPage && !pages.isFetchingNextPage)
        void pages.fetchNextPage();
    },
  });
  const columns = `minmax(11rem, 1.4fr) repeat(${rigs.length}, minmax(9rem, 1fr))`;
  return (
    <>
      {foreseen && Object.keys(foreseen.cells).length > 0 && (
        <p className="mb-2 text-[12px] text-soft">{calibrationWords(foreseen.calibration)}</p>
      )}
      <div
        ref={frame}
        tabIndex={0}
        role="table"
        aria-label="Titles by rigs"
        aria-rowcount={view.total + 1}
        className="relative max-h-[70vh] overflow-auto rounded-(--radius-panel) bg-panel text-[13px]"
      >
        <div
          role="row"
          style={{ gridTemplateColumns: columns }}
          className="sticky top-0 z-10 grid min-w-max border-b border-line bg-panel text-[12px] text-soft max-sm:sr-only"
        >
          <span role="columnheader" className="px-3 py-2">
            Title
          </span>
          {rigs.map(({ id, name }) => (
            <span key={id} role="columnheader" className="px-2 py-2" dir="auto">
              {name}
            </span>
          ))}
        </div>
        <div role="rowgroup" className="relative sm:min-w-max" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start, key }) => {
            const row = rows[index];
            return (
              row && (
                <div
                  key={key}
                  ref={virtual.measureElement}
                  data-index={index}
                  role="row"
                  aria-rowindex={index + 2}
                  style={
                    {
                      "--columns": columns,
                      "--row": `${rowHeight}px`,
                      transform: `translateY(${start}px)`,
                    } as CSSProperties
                  }
                  className="absolute inset-x-0 top-0 grid items-center border-b border-line max-sm:grid-cols-2 max-sm:gap-y-1 max-sm:py-2 sm:h-(--row) sm:[grid-template-columns:var(--columns)]"
                >
                  <TitleRow row={row} rigs={rigs} foreseen={foreseen?.cells ?? none} />
                </div>
              )
            );
          })}
        </div>
      </div>
    </>
  );
}

/** Nothing foreseen. */
const none: Record<string, StartingPoint> = {};

/** A title's cells; drawn once, however far it is scrolled. */
const TitleRow = memo(function TitleRow({
  row,
  rigs,
  foreseen,
}: {
  row: BoardTitle;
  rigs: BoardView["rigs"];
  foreseen: Record<string, StartingPoint>;
}) {
  return (
    <>
      <span role="rowheader" className="min-w-0 px-3 max-sm:col-span-2">
        <span className="block truncate" dir="auto">
          {row.name}
        </span>
        <span className="block truncate text-[12px] text-soft">
          {row.system}, {row.hardness}
        </span>
      </span>
      {rigs.map((rig) => (
        <span key={rig.id} role="cell" className="min-w-0 px-1 max-sm:px-3">
          <span className="block truncate text-[11px] text-soft sm:hidden" dir="auto" aria-hidden>
            {rig.name}
          </span>
          <Cell
            cell={row.cells.find(({ rigId }) => rigId === rig.id)}
            title={row.name}
            rig={rig.name}
            foreseen={foreseen[`${row.id} ${rig.id}`]}
          />
        </span>
      ))}
    </>
  );
});

function Cell({
  cell,
  title,
  rig,
  foreseen,
}: {
  cell: BoardCell | undefined;
  title: string;
  rig: string;
  foreseen: StartingPoint | undefined;
}) {
  if (!cell)
    return (
      <span className="px-1 text-soft">
        <VerdictLamp grade={null} size={15} />
        {foreseen && (
          <span className="figure block truncate px-1 text-[11px] underline decoration-dotted underline-offset-4">
            {foreseenWords(foreseen)}
          </span>
        )}
      </span>
    );
  return (
    <Link
      href={`/jobs/${cell.jobId}?run=${cell.runId}`}
      aria-label={`${title} on ${rig}`}
      className={clsx("block rounded-md px-1 py-0.5 hover:bg-raised")}
    >
      <VerdictLamp grade={cell.grade} between={cell.between} size={15} ran />
      <span className="figure block truncate text-[11px] text-soft">
        {[
          cell.scale === null ? "" : `×${say.plain(cell.scale)}`,
          cell.powerMode ?? "",
          `${say.plain(cell.targetFps)} fps`,
          cell.places ? `${cell.places.hold} of ${cell.places.of} places` : "",
          sureWords(cell),
          cell.overruled ? overruledWords(cell.overruled) : "",
        ]
          .filter(Boolean)
          .join(", ")}
      </span>
    </Link>
  );
}
