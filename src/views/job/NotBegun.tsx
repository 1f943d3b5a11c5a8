import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { call } from "@/contract/client";
import type { SentBody } from "@/contract";
import type { JobRow } from "@/core/records";
import { Button, ChoiceField, Field, Input, SearchChoice, say } from "@/ui";
import { useTitles } from "@/views/kit/useTitles";

interface Changing {
  job: JobRow;
  onChange: (body: SentBody<"changeJob">) => void;
}

/** What can still be changed of a job before its first run: title, engine, house rules and target. */
export function NotBegun({ job, onChange }: Changing) {
  const { titles, more, search, finding } = useTitles();
  const { data: choices } = useQuery({
    queryKey: ["choices of a job", job.id, job.version],
    // A list that is open keeps what it offers while it is asked for anew.
    placeholderData: keepPreviousData,
    queryFn: async () => {
      const sent = await call("viewJobChoices", { id: job.id });
      return sent.ok ? sent.answer : null;
    },
  });
  return (
    <div className="mb-3 grid gap-3 sm:grid-cols-2">
      <Field label="Title">
        {({ id }) => (
          <SearchChoice
            id={id}
            label="Title of the job"
            value={job.titleId}
            shown={job.title}
            options={titles.map(({ id: value, name, system }) => ({ value, label: name, note: system }))}
            onSearch={search}
            finding={finding}
            more={more}
            onChange={(titleId) => onChange({ titleId })}
          />
        )}
      </Field>
      <Field label="Engine and build">
        {({ id }) => (
          <SearchChoice
            id={id}
            label="Engine and build of the job"
            value={job.buildId}
            shown={`${job.engine} ${job.build}`}
            options={(choices?.builds ?? []).map(({ id: value, engine, version }) => ({
              value,
              label: `${engine} ${version}`,
            }))}
            onChange={(buildId) => onChange({ buildId })}
          />
        )}
      </Field>
      <Field label="House rules">
        {({ id }) => (
          <ChoiceField
            id={id}
            label="House rules of the job"
            value={job.houseRulesId}
            options={(choices?.houseRules ?? [{ id: job.houseRulesId, name: job.houseRules }]).map(
              ({ id: value, name }) => ({ value, label: name }),
            )}
            onChange={(houseRulesId) => onChange({ houseRulesId })}
          />
        )}
      </Field>
      <Target key={String(job.targetFps)} job={job} onChange={onChange} />
    </div>
  );
}

/** A rate of the job's own, or none. */
function Target({ job, onChange }: Changing) {
  const [target, setTarget] = useState(job.targetFps === null ? "" : String(job.targetFps));
  const wanted = target.trim() === "" ? null : say.typedNumber(target);
  const isRate = wanted === null || (wanted >= 1 && wanted <= 1000);
  return (
    <Field
      label="Target"
      unit="fps"
      help="Empty: the title's own rate, or what the house rules allow."
      error={isRate ? undefined : "From 1 to 1,000, or empty."}
    >
      {(ids) => (
        <span className="flex gap-2">
          <Input
            {...ids}
            inputMode="decimal"
            value={target}
            onChange={(event) => setTarget(event.target.value)}
          />
          <Button
            disabled={!isRate || wanted === job.targetFps}
            onClick={() => onChange({ targetFps: wanted })}
          >
            Keep
          </Button>
        </span>
      )}
    </Field>
  );
}
