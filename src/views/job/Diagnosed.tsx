"use client";
import { useQuery } from "@tanstack/react-query";
import type { Diagnosis } from "@/core/diagnose";
import { causeWords, words } from "@/core/words";
import { call } from "@/contract/client";
import type { JobView } from "@/contract";
import { say, Explained } from "@/ui";

/** Diagnosis of the selected run: the newest comes with the page, any other is asked for. */
export function useDiagnosis(
  jobId: string,
  runId: string | null,
  given: JobView["diagnosis"],
): Diagnosis | null {
  const known = runId !== null && given?.runId === runId ? given.diagnosis : null;
  const { data = null } = useQuery({
    // Told of with its job: a fault noted on the run makes it anew.
    queryKey: ["job", jobId, "diagnosis", runId],
    enabled: runId !== null && known === null,
    queryFn: async () => {
      const sent = await call("viewDiagnosis", { id: jobId, query: { run: runId ?? "" } });
      return sent.ok ? sent.answer : null;
    },
  });
  return known ?? data;
}

/** What holds a run back, with its evidence, and where. */
export function Diagnosed({ diagnosis }: { diagnosis: Diagnosis }) {
  const places = diagnosis.segments.filter(({ cause, state }) => cause !== null || state !== "full speed");
  const several = new Set(places.map(({ cause }) => cause)).size > 1;
  return (
    <section className="border-t border-line pt-4" aria-label="What holds it back">
      <h2 className="text-[13px] font-semibold text-soft">
        <Explained by="What holds it back">What holds it back</Explained>
      </h2>
      <p className="mt-1" data-testid="diagnosis">
        {words(diagnosis.sentence)}
      </p>
      {diagnosis.settle && (
        <p className="mt-1 text-[13px]">
          <b>To settle it:</b> {words(diagnosis.settle)}
        </p>
      )}
      {diagnosis.causes.length > 0 && (
        <details className="mt-1 text-[13px]">
          <summary className="min-h-7 cursor-pointer py-1 text-soft">Evidence</summary>
          {diagnosis.causes.map(({ cause, evidence }) => (
            <div key={cause} className="mt-1">
              <p className="font-semibold">{causeWords[cause].name}</p>
              <ul className="list-disc pl-4">
                {evidence.map(({ sign, weight }) => (
                  <li key={sign.code}>
                    {words(sign)}{" "}
                    <span className="text-soft">
                      {weight < 0 ? "speaks against" : weight >= 3 ? "strong" : weight >= 1.5 ? "fair" : "weak"}
                    </span>
                  </li>
                ))}
              </ul>
              <p className="text-soft">{causeWords[cause].lever}</p>
            </div>
          ))}
        </details>
      )}
      {several && (
        <ul className="mt-2 space-y-0.5 text-[12px]">
          {places.slice(0, 8).map(({ label, startMs, endMs, cause, state }) => (
            <li key={startMs}>
              <span className="figure text-soft">
                {say.clock(startMs)} to {say.clock(endMs)}
              </span>{" "}
              {label}: {cause ? causeWords[cause].name : state}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
