import { Field, Input, Switch } from "@/ui";

/** The day of a moment, as a field of a day has it. @example dayOf(new Date(2026, 4, 3)) // → "2026-05-03" */
const dayOf = (at: Date) =>
  [at.getFullYear(), at.getMonth() + 1, at.getDate()].map((part) => String(part).padStart(2, "0")).join("-");

/** When a day's readings were seen: at its noon, or now where that is still to come. */
export const seenOn = (day: string, now = new Date()): string =>
  new Date(Math.min(new Date(`${day}T12:00`).getTime(), now.getTime())).toISOString();

/** Whether readings are told from memory, and the day that they were seen; null where they are read now. */
export function FromMemory({ day, onDay }: { day: string | null; onDay: (day: string | null) => void }) {
  return (
    <div className="text-[13px]">
      <Switch
        label="told from memory"
        checked={day !== null}
        onChange={(now) => onDay(now ? dayOf(new Date()) : null)}
      />
      {day !== null && (
        <>
          <Field label="Seen on">
            {(ids) => (
              <Input
                {...ids}
                type="date"
                value={day}
                max={dayOf(new Date())}
                onChange={(event) => onDay(event.target.value)}
              />
            )}
          </Field>
          <p className="mt-1 text-soft">It counts in no floor, comparison or confirmation.</p>
        </>
      )}
    </div>
  );
}
