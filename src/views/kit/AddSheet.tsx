"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import { plainRig, plainTitle, type NewSystem } from "@/core/kit";
import { Button, ChoiceField, Field, Input, Sheet, Switch, say } from "@/ui";
import { Shapes } from "./Shapes";

/** What a chooser lacks and can have made in place. */
export type Lacking = "rig" | "title" | "engine" | "system";

interface Named {
  id: string;
  name: string;
}
const titles: Record<Lacking, string> = {
  rig: "A rig",
  title: "A title",
  engine: "An engine",
  system: "A system",
};

/**
 * Makes what a chooser lacks with the little that is needed, over the form that it is needed in; the rest can
 * come later in Kit.
 */
export function AddSheet({
  what,
  typed,
  systems,
  systemId: given = null,
  onClose,
  onAdded,
}: {
  what: Lacking;
  /** What was typed into the chooser. */
  typed: string;
  systems: Named[];
  /** The system that an engine has to run, where that is known. */
  systemId?: string | null;
  onClose: () => void;
  onAdded: (id: string) => void;
}) {
  const router = useRouter();
  const [name, setName] = useState(typed);
  const [hz, setHz] = useState("");
  const [tied, setTied] = useState(true);
  const [version, setVersion] = useState("");
  const [systemId, setSystemId] = useState(given);
  const [shape, setShape] = useState<NewSystem | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async () => {
    const rate = say.typedNumber(hz);
    if (what === "rig") return call("addRig", { body: { name, spec: plainRig(rate) } });
    if (what === "system")
      return call("addSystem", {
        body: {
          ...(shape ?? { screens: [], note: "" }),
          rates: [{ region: "", hz: rate }],
          name: name.trim() === "" && shape ? shape.name : name,
        },
      });
    if (what === "engine")
      return call("addEngine", {
        body: {
          name,
          systemIds: systemId ? [systemId] : [],
          notes: "",
          builds: [{ version: version.trim() || "(build not said)", branch: "stable", date: null, notes: "" }],
          backEnds: [],
          catalogue: [],
        },
      });
    return call("addTitle", { body: plainTitle({ systemId: systemId ?? "", name, nativeFps: rate, tied }) });
  };
  const add = async () => {
    const sent = await send();
    if (!sent.ok) return setProblem(`${sent.refusal.title} ${sent.refusal.fix}`);
    router.refresh();
    onAdded(sent.answer.id);
  };
  const rateLabel =
    what === "rig" ? "Refresh of its screen" : what === "title" ? "Rate it was built for" : "Rate";
  return (
    <Sheet open onOpenChange={(open) => !open && onClose()} title={titles[what]}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          event.stopPropagation();
          void add();
        }}
      >
        {what === "system" && (
          <Shapes
            onTake={(taken) => {
              setShape(taken);
              setHz(String(taken.rates[0]?.hz ?? ""));
            }}
          />
        )}
        <Field label={what === "system" && shape ? `Name (else ${shape.name})` : "Name (needed)"}>
          {(ids) => (
            <Input
              {...ids}
              value={name}
              maxLength={120}
              autoFocus
              onChange={(event) => setName(event.target.value)}
            />
          )}
        </Field>
        {what !== "engine" && (
          <Field label={`${rateLabel} (needed)`} unit={what === "title" ? "fps" : "Hz"}>
            {(ids) => (
              <Input
                {...ids}
                inputMode="decimal"
                className="max-w-32"
                value={hz}
                onChange={(event) => setHz(event.target.value)}
              />
            )}
          </Field>
        )}
        {what === "engine" && (
          <Field label="Build">
            {(ids) => (
              <Input
                {...ids}
                value={version}
                maxLength={60}
                onChange={(event) => setVersion(event.target.value)}
              />
            )}
          </Field>
        )}
        {(what === "title" || (what === "engine" && given === null)) && (
          <Field label="System (needed)">
            {({ id }) => (
              <ChoiceField
                id={id}
                label="System"
                value={systemId}
                options={systems.map((system) => ({ value: system.id, label: system.name }))}
                onChange={setSystemId}
              />
            )}
          </Field>
        )}
        {what === "title" && <Switch label="speed is tied to the rate" checked={tied} onChange={setTied} />}
        {problem && (
          <p role="alert" className="text-[13px] text-caution">
            {problem}
          </p>
        )}
        <p className="text-[12px] text-soft">The rest can come later, in Kit; it says there what it adds.</p>
        <Button type="submit" look="lit" className="justify-self-start">
          Add it
        </Button>
      </form>
    </Sheet>
  );
}
