import { deviceOf, titleInPlan } from "@/core/campaign";
import type { CampaignView } from "@/core/records";
import { Panel } from "@/ui";

/** Text as a shell takes it for one word. */
const quoted = (text: string) => (/^[\w.-]+$/.test(text) ? text : `"${text.replace(/["\\$`]/g, "\\$&")}"`);

/** What devices are running by themselves, and how one is connected. */
export function ByItself({
  view: { campaign, arms, titles, claims, slots },
  isOver,
}: {
  view: Pick<CampaignView, "campaign" | "arms" | "titles" | "claims" | "slots">;
  isOver: boolean;
}) {
  const running = claims.flatMap(({ title, arm, round, taker }) => {
    const rig = deviceOf(taker);
    const isLeft = slots.some(
      (slot) => slot.title === title && slot.arm === arm && slot.round === round && slot.state === "open",
    );
    return rig === null || !isLeft ? [] : [{ key: `${title} ${arm} ${round}`, rig, title, arm, round }];
  });
  if (isOver && running.length === 0) return null;
  const [rig = ""] = arms.map((arm) => arm.rig);
  return (
    <Panel title="By itself">
      {running.length > 0 ? (
        <ul className="grid gap-1 text-[13px]" aria-label="Devices at work">
          {running.map((each) => (
            <li key={each.key} className="[overflow-wrap:anywhere]">
              <b>{each.rig}</b> runs {titleInPlan(titles[each.title])}, {arms[each.arm]?.name}, round{" "}
              {each.round}
            </li>
          ))}
        </ul>
      ) : (
        <>
          <p className="text-[13px] text-soft">
            A device that can start a title and print its frame log takes its runs without anybody:
          </p>
          <code className="mt-1.5 block rounded bg-raised p-2 text-[12px] [overflow-wrap:anywhere]">
            npm run -s lamp -- attend{" "}
            {[`--campaign ${quoted(campaign.name)}`, `--rig ${quoted(rig)}`, "--with COMMAND"].map((option) => (
              <span key={option} className="inline-block">
                {option}&nbsp;
              </span>
            ))}
          </code>
          <p className="mt-1.5 text-[12px] text-soft">
            With --stand-in instead of a command, runs are made up. Don&apos;t leave a device that gets hot, or
            charges, out of sight.
          </p>
        </>
      )}
    </Panel>
  );
}
