import { call } from "@/contract/client";
import { startPlanner } from "@/workers";
import { scheduleFacts } from "./useSchedule";

/** Searches a better order in a worker; the one made by rule stays where none is found. */
export async function betterOrder(id: string): Promise<void> {
  const planned = await call("viewCampaign", { id });
  if (!planned.ok) return;
  const worker = startPlanner();
  try {
    const order = await worker.call.order(scheduleFacts(planned.answer));
    await call("orderCampaign", {
      id,
      saw: planned.answer.campaign.version,
      body: { order: order.map(({ title, arm, round }) => [title, arm, round]) },
    });
  } finally {
    worker.end();
  }
}
