import type { CaptureResult } from "@/core/capture";
import { lightWords, words } from "@/core/words";
import { NamedFigure, say } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

/** What a capture came to, with what it can't say. */
export function Measured({ result }: { result: CaptureResult }) {
  const { verdict, counter, averageFpsInterval: interval } = result;
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2">
        <VerdictLamp grade={verdict.grade} between={verdict.between} size={36} ran />
        <p className="figure text-2xl">
          {say.number(result.averageFps, 2)}
          <span className="ml-1.5 text-[13px] text-soft">
            fps ({say.number(interval[0], 2)} to {say.number(interval[1], 2)})
          </span>
        </p>
        <span className="text-[13px] text-soft">{lightWords(verdict.grade).meaning}</span>
      </div>
      {verdict.remarks.map((remark) => (
        <p key={remark.code} className="text-[13px]">
          {words(remark)}
        </p>
      ))}
      {result.cutShort && (
        <p className="text-[13px] text-caution">
          The file can&apos;t be read to its end: what is here was measured up to there.
        </p>
      )}
      {result.saidSeconds !== null && (
        <p className="text-[13px] text-caution">
          The file says it lasts {say.number(result.saidSeconds)} s, but its pictures end before: it was cut
          off, or says what isn&apos;t so. What is here was measured.
        </p>
      )}
      {result.stampFaults > 0 && (
        <p className="text-[13px] text-caution">
          {say.count(result.stampFaults, "picture")} without a time of their own left out.
        </p>
      )}
      <dl className="grid grid-cols-4 gap-3 max-sm:grid-cols-2">
        <NamedFigure
          name="Pictures shown"
          value={String(result.frames)}
          note={`of ${result.capturedFrames} captured`}
        />
        <NamedFigure name="Unsure" value={String(result.unsureFrames)} />
        <NamedFigure name="Left out as still" value={say.number(result.stillMs / 1000)} unit="s" />
        <NamedFigure
          name="Counter"
          value={counter?.averageFps == null ? "–" : say.number(counter.averageFps)}
          unit={counter?.averageFps == null ? undefined : "fps"}
          note={
            counter ? `${counter.readings.length} readings, ${counter.dropped.length} dropped` : "none read"
          }
        />
      </dl>
    </div>
  );
}
