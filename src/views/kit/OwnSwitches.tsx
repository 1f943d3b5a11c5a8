import { Plus, X } from "lucide-react";
import { useState } from "react";
import type { FieldErrors } from "react-hook-form";
import { keyOf, plainSwitch, reliefs, type OwnSwitch } from "@/core/kit";
import { Button, ChoiceField, Field, Input, Panel, Switch } from "@/ui";

const notKnown = "only a test tells";
const degrees = ["none", "a little", "noticeable", "much"];

type Errors = FieldErrors<{ all: OwnSwitch[] }>["all"];

/** Switches of a device's own, or options in a title: what each is called, its values, and what it costs. */
export function OwnSwitches({
  title,
  add,
  note,
  value,
  onChange,
  errors,
}: {
  title: string;
  /** What one of them is called on the button that adds it. */
  add: string;
  /** What stands there while there is none. */
  note: string;
  value: OwnSwitch[];
  onChange: (value: OwnSwitch[]) => void;
  errors: Errors;
}) {
  const change = (at: number, changed: Partial<OwnSwitch>) =>
    onChange(value.map((own, index) => (index === at ? { ...own, ...changed } : own)));
  return (
    <Panel
      title={title}
      aside={
        <Button onClick={() => onChange([...value, plainSwitch("")])}>
          <Plus size={14} aria-hidden />
          {add}
        </Button>
      }
    >
      {value.length === 0 && <p className="text-[13px] text-soft">{note}</p>}
      {errors?.message && <p className="text-[12px] text-caution">{errors.message}</p>}
      {value.map((own, index) => (
        <OneSwitch
          key={index}
          name={`${add} ${index + 1}`}
          own={own}
          errors={errors?.[index]}
          onChange={(changed) => change(index, changed)}
          onRemove={() => onChange(value.filter((_, at) => at !== index))}
        />
      ))}
    </Panel>
  );
}

function OneSwitch({
  name,
  own,
  errors,
  onChange,
  onRemove,
}: {
  name: string;
  own: OwnSwitch;
  errors: FieldErrors<OwnSwitch> | undefined;
  onChange: (changed: Partial<OwnSwitch>) => void;
  onRemove: () => void;
}) {
  const [text, setText] = useState(own.values.join(", "));
  const { values } = own;
  return (
    <fieldset className="mb-2 grid gap-2 border-t border-line pt-2 first-of-type:border-t-0">
      <legend className="sr-only">{name}</legend>
      <div className="grid grid-cols-[1.3fr_1.6fr_0.9fr_1.1fr_auto] items-end gap-3 max-sm:grid-cols-1">
        <Field label={`Name of ${name}`} error={errors?.label?.message ?? errors?.key?.message}>
          {(ids) => (
            <Input
              {...ids}
              value={own.label}
              maxLength={80}
              onChange={({ target }) =>
                onChange({
                  label: target.value,
                  // Its key follows its name until it was kept under one.
                  ...(own.key === "" || own.key === keyOf(own.label) ? { key: keyOf(target.value) } : {}),
                })
              }
            />
          )}
        </Field>
        <Field label="Values, separated by commas" error={errors?.values?.message}>
          {(ids) => (
            <Input
              {...ids}
              value={text}
              onChange={({ target }) => {
                setText(target.value);
                const now = target.value
                  .split(",")
                  .map((part) => part.trim())
                  .filter(Boolean);
                onChange({
                  values: now,
                  default: now.includes(own.default) ? own.default : (now[0] ?? ""),
                  fastest: own.fastest !== null && now.includes(own.fastest) ? own.fastest : null,
                });
              }}
            />
          )}
        </Field>
        <Field label="Usual" error={errors?.default?.message}>
          {({ id }) => (
            <ChoiceField
              id={id}
              label={`Usual value of ${name}`}
              value={own.default}
              options={values.map((each) => ({ value: each, label: each }))}
              onChange={(to) => onChange({ default: to })}
            />
          )}
        </Field>
        <Field label="Fastest" error={errors?.fastest?.message}>
          {({ id }) => (
            <ChoiceField
              id={id}
              label={`Fastest value of ${name}`}
              value={own.fastest ?? notKnown}
              options={[notKnown, ...values].map((each) => ({ value: each, label: each }))}
              onChange={(to) => onChange({ fastest: to === notKnown ? null : to })}
            />
          )}
        </Field>
        <Button look="quiet" aria-label={`Remove ${name}`} onClick={onRemove}>
          <X size={14} aria-hidden />
        </Button>
      </div>
      <details className="text-[13px]">
        <summary className="cursor-pointer text-soft">
          What it relieves and costs, what to watch out for
        </summary>
        <div className="mt-2 grid gap-3">
          <div className="flex flex-wrap gap-x-4 gap-y-2">
            {reliefs.map((relief) => (
              <Switch
                key={relief}
                label={`relieves ${relief}`}
                checked={own.relieves.includes(relief)}
                onChange={(on) =>
                  onChange({
                    relieves: on ? [...own.relieves, relief] : own.relieves.filter((held) => held !== relief),
                  })
                }
              />
            ))}
            <Switch
              label="costs speed"
              checked={own.costsSpeed}
              onChange={(costsSpeed) => onChange({ costsSpeed })}
            />
            <Switch
              label="needs a restart"
              checked={own.restart}
              onChange={(restart) => onChange({ restart })}
            />
          </div>
          <div className="grid grid-cols-[1fr_1fr_2fr] gap-3 max-sm:grid-cols-1">
            {(["picture", "heat"] as const).map((cost) => (
              <Field key={cost} label={`Costs in ${cost}`}>
                {({ id }) => (
                  <ChoiceField
                    id={id}
                    label={`${name} costs in ${cost}`}
                    value={String(own[cost])}
                    options={degrees.map((label, degree) => ({ value: String(degree), label }))}
                    onChange={(degree) => onChange({ [cost]: Number(degree) })}
                  />
                )}
              </Field>
            ))}
            <Field label="Watch out for" error={errors?.caution?.message}>
              {(ids) => (
                <Input
                  {...ids}
                  value={own.caution}
                  maxLength={400}
                  onChange={({ target }) => onChange({ caution: target.value })}
                />
              )}
            </Field>
          </div>
        </div>
      </details>
    </fieldset>
  );
}
