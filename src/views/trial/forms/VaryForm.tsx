"use client";
import { useState } from "react";
import { factorPlan, factorsFor } from "@/core/trial";
import { Field, Input, Link, Panel, SearchChoice, Switch, say } from "@/ui";
import { NoCatalogue } from "@/views/kit/NoCatalogue";
import { RigsForm } from "./RigsForm";
import { Unlisted } from "./Unlisted";
import { Cautions, Foot, Row, Ticks, Whole, type FormProps } from "./parts";

/** What varies is the rig: no factor of a trial, which belongs to a job on one rig. */
const anotherRig = "another rig";

/** Plans a trial of one thing in any number of values: picked in place, the order and the minutes follow. */
export function VaryForm(props: FormProps) {
  const { view } = props;
  const { catalogue, standing, holds, spec, builds, job } = view;
  const factors = factorsFor({
    catalogue,
    standing,
    conditions: holds.conditions,
    spec,
    builds,
    buildId: job.buildId,
    mayChange: job.rules.mayChange,
  });
  const [key, setKey] = useState<string | null>(null);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [name, setName] = useState("");
  const [rounds, setRounds] = useState(view.byEye ? 1 : 3);
  const [cold, setCold] = useState(false);
  const factor = factors.find((each) => each.key === key) ?? null;
  const values = factor ? factor.values.filter((value) => ticked.has(value.name)) : [];
  const draft =
    factor && values.length > 0
      ? factorPlan(view, factor, values, { rounds, cold, name: name.trim() }, holds.conditions)
      : null;
  return (
    <>
      <Panel>
        <div className="grid gap-4">
          <Field label="What varies">
            {({ id }) => (
              <SearchChoice
                id={id}
                label="What varies"
                value={key ?? ""}
                onChange={(chosen) => {
                  const found = factors.find((each) => each.key === chosen);
                  setKey(chosen);
                  // Of few values all are meant; of many some are picked.
                  setTicked(
                    new Set(found && found.values.length <= 3 ? found.values.map((each) => each.name) : []),
                  );
                }}
                options={[
                  ...factors.map((each) => ({
                    value: each.key,
                    label: each.label,
                    note: `now ${each.now}; ${say.count(each.values.length, "other value")}`,
                  })),
                  { value: anotherRig, label: "Rig", note: `now ${job.rig}` },
                ]}
              />
            )}
          </Field>
          {key === anotherRig ? (
            <RigsForm view={view} />
          ) : (
            <>
              {factor && (
                <>
                  <p className="text-[13px] text-soft">
                    As it is now: <b className="text-text">{factor.now}</b>. Each value that is ticked is an arm
                    beside it.
                  </p>
                  <Ticks
                    label={`Values of ${factor.label}`}
                    options={factor.values.map((each) => ({
                      value: each.name,
                      label: each.name,
                      note: each.note,
                    }))}
                    chosen={ticked}
                    onChange={setTicked}
                  />
                  {factor.caution !== "" && <p className="text-[13px] text-caution">{factor.caution}</p>}
                </>
              )}
              <Unlisted
                jobId={job.id}
                onListed={(listed, label, others) => {
                  setKey(listed);
                  setTicked(new Set(others.map((value) => `${label} ${value}`)));
                }}
              />
              {catalogue.length === 0 && <NoCatalogue engineId={job.engineId} rigId={job.rigId} />}
              <Row>
                <Field label="Name">
                  {(ids) => (
                    <Input
                      {...ids}
                      value={name}
                      maxLength={120}
                      placeholder={factor?.label ?? "named after what varies"}
                      onChange={(event) => setName(event.target.value)}
                    />
                  )}
                </Field>
                <Whole label="Runs of each" value={rounds} min={1} max={20} onChange={setRounds} />
                <span className="pt-7">
                  <Switch label="first passes, cache cleared" checked={cold} onChange={setCold} />
                </span>
              </Row>
              <p className="text-[12px] text-soft">
                Several titles at once are compared in{" "}
                <Link href={`/campaigns/new?rig=${job.rigId}`} className="underline">
                  a campaign
                </Link>
                .
              </p>
              {factor?.heats && <Cautions />}
            </>
          )}
        </div>
      </Panel>
      {key !== anotherRig && (
        <Foot
          {...props}
          draft={draft}
          missing={
            factor === null
              ? "Choose what varies to begin."
              : values.length === 0
                ? "Tick one value at least."
                : undefined
          }
        />
      )}
    </>
  );
}
