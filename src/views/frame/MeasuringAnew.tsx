"use client";
import { useQuery } from "@tanstack/react-query";
import { call } from "@/contract/client";
import { say } from "@/ui";

/** How many runs still carry figures of an older method, while they are made anew in the background. */
export function MeasuringAnew() {
  const { data: left = 0 } = useQuery({
    queryKey: ["work", "measure-anew"],
    queryFn: async () => {
      const sent = await call("viewWork", {});
      return sent.ok ? sent.answer.outdatedRuns : 0;
    },
  });
  if (left === 0) return null;
  return (
    <span role="status" className="shrink-0 px-2 text-[12px] text-soft">
      Measuring anew by the present method: {say.count(left, "run")} to go
    </span>
  );
}
