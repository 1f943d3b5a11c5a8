/** Which clock sets the pace with a sound sync on or off, in words; common practice. */
export function SyncSchool({ label, on }: { label: string; on: boolean }) {
  return (
    <span className="col-span-full text-[12px] text-soft">
      {label} {on ? "on" : "off"}:{" "}
      {on
        ? "the sound's clock sets the pace; sound doesn't drop out, frames come unevenly where the screen's clock differs."
        : "the screen's clock sets the pace; frames come evenly, sound is stretched or drops out where the clocks differ."}
    </span>
  );
}
