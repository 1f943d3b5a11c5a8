import { Film } from "lucide-react";
import { useEffect, useMemo, useRef, useState, type RefObject } from "react";
import { momentsOf } from "@/core/capture";
import { Button, ChoiceField, FileInput, say } from "@/ui";
import { Marks, Timeline, useInHand, videos, type CaptureSession } from "@/views/capture";
import { saidAt } from "./still";

/** One of two videos: its picture, its time under it, and what it is lined up on. */
export function Side({
  name,
  session,
  video,
  from,
  ms,
  onFrom,
  onMoment,
  onFile,
}: {
  name: string;
  session: CaptureSession;
  video: RefObject<HTMLVideoElement | null>;
  /** The moment that is lined up, ms. */
  from: number;
  /** The moment that is shown, ms. */
  ms: number;
  onFrom: (ms: number) => void;
  onMoment: (ms: number) => void;
  onFile: (file: File) => void;
}) {
  const inHand = useInHand(session);
  const { file, opened, problem, progress, result, marks } = inHand;
  const input = useRef<HTMLInputElement>(null);
  const [unplayable, setUnplayable] = useState<string | null>(null);
  const address = useMemo(() => (file ? URL.createObjectURL(file) : null), [file]);
  useEffect(() => () => (address ? URL.revokeObjectURL(address) : undefined), [address]);
  const moments = useMemo(() => (result ? momentsOf(result, marks) : []), [result, marks]);
  const lengthMs = 1000 * (opened?.seconds ?? (result ? result.durationMs / 1000 : 0));
  const places = [
    { value: "0", label: "its beginning" },
    ...marks.map(({ label, startMs }) => ({
      value: String(startMs),
      label: `${label}, ${say.clock(startMs)}`,
    })),
  ];
  if (!places.some(({ value }) => value === String(from)))
    places.push({ value: String(from), label: say.clock(from) });
  return (
    <section aria-label={name} className="grid min-w-0 content-start gap-3">
      <div className="flex flex-wrap items-center gap-2 text-[13px]">
        <h2 className="font-semibold">{name}</h2>
        {file && (
          <span dir="auto" className="text-soft [overflow-wrap:anywhere]">
            {file.name}
          </span>
        )}
        <Button look={file ? "quiet" : "lit"} onClick={() => input.current?.click()}>
          <Film size={16} aria-hidden /> {file ? "Another" : `Choose ${name.toLowerCase()}`}
        </Button>
      </div>
      <FileInput ref={input} label={`${name}: video file`} accept={videos} onFile={onFile} />
      {problem && (
        <p role="alert" className="rounded-md border border-caution p-3 text-[13px] [overflow-wrap:anywhere]">
          {problem}
        </p>
      )}
      {address && opened && (
        <>
          <video
            ref={video}
            src={address}
            muted
            playsInline
            preload="auto"
            aria-label={`${name}: ${file?.name ?? ""}`}
            onError={() => setUnplayable(address)}
            className="max-h-[46vh] w-full rounded border border-line bg-black object-contain"
          />
          {unplayable === address && (
            <p role="alert" className="text-[13px] text-caution">
              This browser can measure the video but not play it: convert it to H.264 in MP4, or to VP9 in WebM.
            </p>
          )}
          <Timeline
            moments={moments}
            marks={marks}
            moment={ms}
            lengthMs={lengthMs}
            stepMs={1000 / (result?.captureFps ?? 60)}
            onMoment={onMoment}
          />
          {progress ? (
            <p className="text-[13px] text-soft">
              Measuring: <span className="figure">{say.number(progress.seconds)} s</span>
            </p>
          ) : (
            <p className="text-[13px]" data-testid="said">
              {saidAt(name, inHand, ms).join("; ")}.
            </p>
          )}
          <div className="flex flex-wrap items-center gap-2 text-[13px]">
            <span className="text-soft">Lined up on</span>
            <ChoiceField
              quiet
              label={`${name}: lined up on`}
              value={String(from)}
              options={places}
              onChange={(value) => onFrom(Number(value))}
            />
            <Button onClick={() => onFrom(ms)}>Line up here</Button>
          </div>
          <Marks marks={marks} moment={ms} onChange={(changed) => session.put({ marks: changed })} />
        </>
      )}
    </section>
  );
}
