"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { Controller, useForm } from "react-hook-form";
import { faultKinds, faultSeverities, newFaultSchema, type NewFault } from "@/core/kit";
import type { FaultRow } from "@/core/records";
import type { ThreadRun } from "@/contract";
import { Button, ChoiceField, Field, Input, Sheet, say, toast } from "@/ui";
import { sendLater } from "@/views/live";
import { call } from "@/contract/client";

const severityNotes = {
  slight: "noted only",
  visible: "at best Flickers",
  severe: "at best Gutters",
  blocking: "Dark",
} as const;

/** Notes a fault of a run; the verdict follows. Faults noted before can be taken back. */
export function FaultSheet({
  run,
  faults,
  scenes,
  open,
  onOpenChange,
  onChanged,
}: {
  run: ThreadRun;
  faults: FaultRow[];
  scenes: string[];
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onChanged: () => void;
}) {
  const form = useForm<NewFault>({
    resolver: zodResolver(newFaultSchema),
    defaultValues: {
      runId: run.id,
      kind: "picture",
      severity: "visible",
      scene: "",
      atMs: null,
      note: "",
      workaround: "",
    },
  });
  const { register, control, handleSubmit, formState, reset, setError } = form;
  const { errors, isSubmitting } = formState;
  const save = async (fault: NewFault) => {
    const key = crypto.randomUUID();
    const body = { ...fault, runId: run.id };
    const sent = await call("addFault", { body, key });
    if (!sent.ok && sent.refusal.status === 0) {
      sendLater({ key, name: "addFault", asking: { body }, label: `a fault of run ${run.number}` });
      toast("Kept on this device: it is sent when the application answers.");
    } else if (!sent.ok) return setError("root", { message: `${sent.refusal.title} ${sent.refusal.fix}` });
    reset();
    onOpenChange(false);
    onChanged();
  };
  const takeBack = async (id: string) => {
    await call("removeFault", { id });
    onChanged();
  };
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={`Faults of run ${run.number}`}>
      {faults.length > 0 && (
        <ul className="mb-4 space-y-2">
          {faults.map((fault) => (
            <li key={fault.id} className="flex items-start justify-between gap-3 text-[13px]">
              <span>
                <b>{fault.severity}</b>, {fault.kind}
                {fault.scene && ` at ${fault.scene}`}
                {fault.atMs !== null && `, ${say.clock(fault.atMs)}`}
                {fault.note && `: ${fault.note}`}
                {fault.workaround && <span className="block text-soft">What helps: {fault.workaround}</span>}
              </span>
              <Button look="quiet" onClick={() => void takeBack(fault.id)}>
                Take back
              </Button>
            </li>
          ))}
        </ul>
      )}
      <form className="grid gap-3" onSubmit={handleSubmit(save)}>
        <div className="grid grid-cols-2 gap-3">
          <Field label="What is wrong">
            {({ id }) => (
              <Controller
                control={control}
                name="kind"
                render={({ field }) => (
                  <ChoiceField
                    id={id}
                    label="What is wrong"
                    value={field.value}
                    onChange={field.onChange}
                    options={faultKinds.map((kind) => ({ value: kind, label: kind }))}
                  />
                )}
              />
            )}
          </Field>
          <Field label="How bad">
            {({ id }) => (
              <Controller
                control={control}
                name="severity"
                render={({ field }) => (
                  <ChoiceField
                    id={id}
                    label="How bad"
                    value={field.value}
                    onChange={field.onChange}
                    options={faultSeverities.map((severity) => ({
                      value: severity,
                      label: severity,
                      note: severityNotes[severity],
                    }))}
                  />
                )}
              />
            )}
          </Field>
          <Field label="Scene" error={errors.scene?.message}>
            {(ids) => (
              <>
                <Input {...ids} list="fault-scenes" {...register("scene")} />
                <datalist id="fault-scenes">
                  {scenes.map((scene) => (
                    <option key={scene} value={scene} />
                  ))}
                </datalist>
              </>
            )}
          </Field>
          <Field label="When in the trace" unit="s" error={errors.atMs?.message} help="Empty when not known.">
            {(ids) => (
              <Input
                {...ids}
                inputMode="decimal"
                {...register("atMs", {
                  setValueAs: (text) =>
                    text === "" || text === null ? null : Number(String(text).replace(",", ".")) * 1000,
                })}
              />
            )}
          </Field>
        </div>
        <Field label="What was seen" error={errors.note?.message}>
          {(ids) => <Input {...ids} {...register("note")} />}
        </Field>
        <Field label="What helps" error={errors.workaround?.message} help="A workaround, e.g. a cache reset.">
          {(ids) => <Input {...ids} {...register("workaround")} />}
        </Field>
        <p className="text-[12px] text-soft">
          Flashing picture faults can trouble photosensitive people: look away and stop the title.
        </p>
        {errors.root && (
          <p role="alert" className="text-caution">
            {errors.root.message}
          </p>
        )}
        <Button type="submit" look="lit" className="justify-self-start" disabled={isSubmitting}>
          Note the fault
        </Button>
      </form>
    </Sheet>
  );
}
