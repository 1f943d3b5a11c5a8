"use client";
import { useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useDeferredValue, useState } from "react";
import { call } from "@/contract/client";
import { titlesIn } from "@/core/pasted";
import type { SystemRow } from "@/core/records";
import { Button, ChoiceField, Sheet, TableFrame, TextArea, Switch, say, toast, toggled } from "@/ui";

const example = "Copper Regatta; Cinder 32; 60; the lock gates, the weir";

/** A title of the shelf that a line is like. */
interface Like {
  /** Its name there. */
  as: string;
  same: boolean;
}
const noLikes: ReadonlyMap<string, Like> = new Map();
const lineOf = (title: { name: string; system: string } | undefined) => `${title?.system}\n${title?.name}`;

/** Many titles at once, from lines that are pasted: read, shown, and only then kept. */
export function PasteTitles({
  systems,
  open,
  onOpenChange,
}: {
  systems: SystemRow[];
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [usual, setUsual] = useState(systems[0]?.name ?? "");
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  /** Names that are nearly those of titles on the shelf, and are other titles all the same. */
  const [others, setOthers] = useState<ReadonlySet<string>>(new Set());
  const { titles, left } = titlesIn(
    text,
    systems.map(({ name }) => name),
  );
  const lacksSystem = titles.some(({ system }) => system === "");
  const systemOf = (name: string) =>
    systems.find((each) => each.name.toLowerCase() === (name || usual).toLowerCase()) ?? null;
  const rows = titles.map((title) => {
    const known = systemOf(title.system);
    return {
      ...title,
      system: known?.name ?? (title.system || usual),
      isNew: known === null,
      rate: title.nativeFps ?? known?.rates[0]?.hz ?? null,
      ofSystem: title.nativeFps === null,
    };
  });
  const asked = useDeferredValue(
    JSON.stringify(rows.filter(({ system }) => system !== "").map(({ name, system }) => ({ name, system }))),
  );
  const { data: likes = noLikes } = useQuery({
    queryKey: ["titles like", asked],
    enabled: open && rows.length > 0,
    queryFn: async () => {
      const titles = JSON.parse(asked) as { name: string; system: string }[];
      const sent = await call("likeTitles", { body: { titles } });
      return new Map(
        sent.ok ? sent.answer.there.map(({ at, name, same }) => [lineOf(titles[at]), { as: name, same }]) : [],
      );
    },
    placeholderData: (before) => before,
  });
  const added = rows.filter((row) => {
    const like = likes.get(lineOf(row));
    return like === undefined || (!like.same && others.has(row.name));
  });
  const unrated = added.filter(({ rate }) => rate === null).length;
  const keep = async () => {
    setBusy(true);
    const sent = await call("addTitles", {
      body: {
        titles: added.map(({ name, system, nativeFps, region, hardness, scenes }) => ({
          name,
          system,
          nativeFps,
          region,
          hardness,
          scenes,
        })),
      },
    });
    setBusy(false);
    if (!sent.ok) return setProblem(`${sent.refusal.title} ${sent.refusal.fix}`);
    const { made, there } = sent.answer;
    toast(`${say.count(made, "title")} added.`, {
      ...(there.length > 0 && { action: { label: "Merge", onClick: () => router.push("/kit/merge") } }),
      description:
        there.length === 0
          ? "Ctrl+Z takes them back."
          : `There already, and left as ${there.length === 1 ? "it is" : "they are"}: ${there.slice(0, 8).join(", ")}${there.length > 8 ? " …" : ""}. Where they are other titles, merge or name them apart.`,
    });
    setText("");
    onOpenChange(false);
    router.refresh();
  };
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title="Titles, a line each">
      <p className="text-[13px] text-soft">
        A name in each line, and what else is known: system, rate, scenes. Any separator; columns are found by
        what stands in them, or by a head.
      </p>
      <TextArea
        aria-label="Lines with titles"
        className="mt-2 figure text-[13px]"
        rows={6}
        autoFocus
        value={text}
        placeholder={example}
        onChange={(event) => {
          setText(event.target.value);
          setProblem(null);
        }}
      />
      {lacksSystem && systems.length > 0 && (
        <div className="mt-2 flex items-center gap-2 text-[13px] text-soft">
          Lines that name no system are of{" "}
          <ChoiceField
            quiet
            label="System of lines that name none"
            value={usual}
            options={systems.map(({ name }) => ({ value: name, label: name }))}
            onChange={setUsual}
          />
        </div>
      )}
      {rows.length > 0 && (
        <div className="mt-3 max-h-72 overflow-auto">
          <TableFrame name="What would be added">
            <table aria-label="What would be added" className="w-full text-left text-[13px]">
              <thead className="text-[12px] text-soft">
                <tr>
                  {["Title", "System", "Rate", "Scenes"].map((head) => (
                    <th key={head} className="px-2 py-1 font-normal">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody className="divide-y divide-line">
                {rows.map(({ line, name, system, isNew, rate, ofSystem, scenes }) => (
                  <tr key={line} className="align-top">
                    <td className="px-2 py-1 [overflow-wrap:anywhere]">
                      {name}
                      <Double
                        like={likes.get(lineOf({ name, system }))}
                        isOther={others.has(name)}
                        onOther={() => setOthers(toggled(others, name))}
                      />
                    </td>
                    <td className="px-2 py-1">
                      {system || <span className="text-caution">none named</span>}
                      {isNew && system !== "" && <span className="text-soft">, new</span>}
                    </td>
                    <td className="figure px-2 py-1">
                      {rate === null ? (
                        <span className="text-caution">not known</span>
                      ) : (
                        <>
                          {say.plain(rate)}
                          {ofSystem && <span className="text-soft"> by its system</span>}
                        </>
                      )}
                    </td>
                    <td className="px-2 py-1 text-soft">{scenes.join(", ")}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </TableFrame>
        </div>
      )}
      {left.length > 0 && (
        <p className="mt-2 text-[13px] text-caution">
          {say.count(left.length, "line")} without a name left out:{" "}
          {left
            .slice(0, 5)
            .map(({ line }) => line)
            .join(", ")}
          {left.length > 5 && " …"}.
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-2 text-[13px] text-caution">
          {problem}
        </p>
      )}
      <div className="mt-3 flex items-center gap-3">
        <Button
          look="lit"
          disabled={busy || added.length === 0 || unrated > 0 || added.some(({ system }) => system === "")}
          onClick={() => void keep()}
        >
          Add {say.count(added.length, "title")}
        </Button>
        {unrated > 0 && (
          <span className="text-[13px] text-caution">
            {say.count(unrated, "title")} of a new system without a rate: write it into the line.
          </span>
        )}
      </div>
    </Sheet>
  );
}

/** Said of a line whose title the shelf has already: it is left as it is, unless it is another one. */
function Double({ like, isOther, onOther }: { like: Like | undefined; isOther: boolean; onOther: () => void }) {
  if (!like) return null;
  if (like.same) return <p className="text-[12px] text-soft">There already, and left as it is.</p>;
  return (
    <div className="text-[12px] text-soft">
      <p>
        “{like.as}” is there already{isOther ? "." : ": taken for the same."}
      </p>
      <Switch label="another title" checked={isOther} onChange={onOther} />
    </div>
  );
}
