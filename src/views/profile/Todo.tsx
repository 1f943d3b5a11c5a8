import { useRouter } from "next/navigation";
import { call } from "@/contract/client";
import { layers, type Layer } from "@/core/profile";
import type { ProfileView } from "@/contract";
import { valueWords } from "@/core/words";
import { Button, Keys, Panel, say, toast } from "@/ui";
import { placed, type SayChanged } from "./place";

const layerWords: Record<Layer, string> = { rig: "the rig's", system: "the system's", title: "the title's" };

/** What can be moved up or dropped, and what is still to be confirmed on this rig. */
export function Todo({ view, told }: { view: ProfileView; told: SayChanged }) {
  const router = useRouter();
  const { rig, engine, titles, lifts, drops, checks, systemId, buildId, saw } = view;
  const nameOf = (id: string) => titles.find((title) => title.id === id)?.name ?? "another title";
  const labelOf = (key: string) => view.rows.find((row) => row.key === key)?.label ?? key;
  const systemName = view.systems.find(({ id }) => id === systemId)?.name ?? "";
  const plan = async (titleId: string, keys: string[]) => {
    const sent = await call("planCheck", {
      body: { rigId: rig.id, engineId: engine.id, titleId, buildId, keys },
    });
    if (!sent.ok) return void toast.error(sent.refusal.title, { description: sent.refusal.fix });
    router.push(`/jobs/${sent.answer.jobId}/trials/${sent.answer.trialId}`);
  };
  const [firstCheck] = checks;
  const droppable = layers.filter((layer) => drops[layer].length > 0);
  return (
    <>
      {firstCheck && (
        <Keys
          actions={[
            {
              keys: "r",
              shown: "R",
              label: "plan the next check",
              run: () =>
                void plan(
                  firstCheck.titleId,
                  firstCheck.settings.map(({ key }) => key),
                ),
            },
          ]}
        />
      )}
      {lifts.length > 0 && (
        <Panel title="Could move up">
          <ul className="grid gap-3 text-[13px]">
            {lifts.map(({ key, value, titleIds, changes }) => (
              <li key={key + String(value)}>
                <p>
                  {labelOf(key)} <b className="figure">{valueWords(value)}</b>:{" "}
                  {titleIds.map(nameOf).join(", ")} set it alike.
                </p>
                <p className="text-[12px] text-soft">
                  {changes.length === 0
                    ? "No other title tuned here would change."
                    : `It would change ${changes.map(({ titleId, from }) => `${nameOf(titleId)} (now ${valueWords(from)})`).join(", ")}; to be confirmed there.`}
                </p>
                <Button
                  className="mt-1"
                  onClick={() =>
                    void told(
                      call("liftValue", {
                        body: { rigId: rig.id, engineId: engine.id, systemId, key, value, saw },
                      }),
                    )
                  }
                >
                  Move up to {systemName}
                </Button>
              </li>
            ))}
          </ul>
        </Panel>
      )}
      {droppable.length > 0 && (
        <Panel title="Set twice">
          {droppable.map((layer) => (
            <div key={layer} className="text-[13px]">
              <p>
                In {layerWords[layer]} layer: {drops[layer].map(labelOf).join(", ")} with the same value as the
                layer above. Without them nothing changes.
              </p>
              <Button
                className="mt-1"
                onClick={() =>
                  void told(
                    call("setProfileValues", {
                      body: placed(
                        view,
                        layer,
                        drops[layer].map((key) => ({ key, value: null })),
                      ),
                    }),
                  )
                }
              >
                Drop {say.count(drops[layer].length, "value")}
              </Button>
            </div>
          ))}
        </Panel>
      )}
      <Panel title="To be confirmed here">
        {checks.length === 0 ? (
          <p className="text-[13px] text-soft">
            Everything that differs from the default is proven as the rig is now.
          </p>
        ) : (
          <ul className="grid gap-3 text-[13px]">
            {checks.map(({ titleId, title, settings }, at) => (
              <li key={titleId}>
                <p className="font-semibold" dir="auto">
                  {title}
                </p>
                <ul className="text-[12px] text-soft">
                  {settings.map(({ key, label, value, stale }) => (
                    <li key={key}>
                      {label} {valueWords(value)}: {standingOf(stale)}
                    </li>
                  ))}
                </ul>
                <Button
                  className="mt-1"
                  look={at === 0 ? "lit" : "plain"}
                  hint={at === 0 ? "R" : undefined}
                  onClick={() =>
                    void plan(
                      titleId,
                      settings.map(({ key }) => key),
                    )
                  }
                >
                  Plan a check
                </Button>
              </li>
            ))}
          </ul>
        )}
        <p className="mt-3 text-[12px] text-soft">A check is one round against the engine&apos;s default.</p>
      </Panel>
    </>
  );
}

const standingOf = (stale: readonly string[]) =>
  stale.length === 0 ? "not tested on this title" : `measured on another ${stale.join(" and ")}`;
