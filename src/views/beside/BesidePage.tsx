"use client";
import { Pause, Play } from "lucide-react";
import { useRef, useState, useSyncExternalStore } from "react";
import { Button, ChoiceField, EmptyPanel, Keys, download, say, toast } from "@/ui";
import { firstOfTwo, sessionFor, useInHand } from "@/views/capture";
import { useDrops } from "@/views/drop";
import { Side } from "./Side";
import { besidePng, saidAt } from "./still";
import { usePlayback, type Together } from "./usePlayback";

const videoKinds = ["video"] as const;
const names = [firstOfTwo, "Second video"] as const;
/** Rates are counted, nothing is judged: what they are held against is of no account. */
const yardstick = { nativeFps: 60, targetFps: 60, tied: false, refreshHz: 60 };
const rates = [
  { value: "1", label: "at full speed" },
  { value: "0.5", label: "at half speed" },
  { value: "0.25", label: "at a quarter speed" },
];
const ways: { value: Together; label: string }[] = [
  { value: "together", label: "together" },
  { value: "in turn", label: "one after the other" },
];

const unchanging = () => () => {};

/** Two videos lined up on a moment of each and played together, with the time of each under it. */
export function BesidePage() {
  // Workers read the videos, and those are the browser's.
  const inBrowser = useSyncExternalStore(
    unchanging,
    () => true,
    () => false,
  );
  return inBrowser ? <Beside /> : null;
}

function Beside() {
  const [sessions] = useState(() => [sessionFor(names[0]), sessionFor(names[1])] as const);
  const inHands = [useInHand(sessions[0]), useInHand(sessions[1])] as const;
  const videos = [useRef<HTMLVideoElement>(null), useRef<HTMLVideoElement>(null)] as const;
  const [from, setFrom] = useState<readonly [number, number]>([0, 0]);
  const [rate, setRate] = useState("0.25");
  const [how, setHow] = useState<Together>("together");
  const lengthOf = (side: 0 | 1) =>
    Math.max(0, (inHands[side].opened?.seconds ?? 0) - (from[side] ?? 0) / 1000);
  const length = how === "together" ? Math.min(lengthOf(0), lengthOf(1)) : Math.max(lengthOf(0), lengthOf(1));
  const { at, playing, play, pause, to } = usePlayback(
    [
      { video: videos[0], from: from[0] / 1000 },
      { video: videos[1], from: from[1] / 1000 },
    ],
    Number(rate),
    how,
    length,
  );
  const [moments, setMoments] = useState<readonly [number, number] | null>(null);
  /** What each side shows, ms: by the common time, or where it was put by itself. */
  const shown = (side: 0 | 1) =>
    Math.max(0, moments && playing.length === 0 ? moments[side] : from[side] + 1000 * at);
  const open = async (side: 0 | 1, file: File) => {
    const session = sessions[side];
    await session.open(file);
    setFrom(side === 0 ? [0, from[1]] : [from[0], 0]);
    setMoments(null);
    if (session.read().opened) await session.measure(yardstick);
  };
  useDrops((files) => {
    const [first, second] = files;
    if (first && second) void Promise.all([open(0, first), open(1, second)]);
    else if (first) void open(inHands[0].file && !inHands[1].file ? 1 : 0, first);
  }, videoKinds);
  const bothThere = inHands.every(({ opened }) => opened !== null);
  const common = (seconds: number) => {
    setMoments(null);
    to(seconds);
  };
  const start = () => {
    setMoments(null);
    play();
  };
  const lookAt = (side: 0 | 1, ms: number) => {
    pause();
    const video = videos[side].current;
    if (video) video.currentTime = ms / 1000;
    setMoments(side === 0 ? [ms, shown(1)] : [shown(0), ms]);
  };
  const lineUp = (side: 0 | 1, ms: number) => {
    setFrom(side === 0 ? [ms, from[1]] : [from[0], ms]);
    common(0);
  };
  const save = async () => {
    try {
      const sides = ([0, 1] as const).map((side) => {
        const video = videos[side].current,
          { opened, file } = inHands[side];
        if (!video || !opened || !file) throw new Error("Both videos are needed.");
        const lines = saidAt(file.name, inHands[side], shown(side));
        return { video, width: opened.width, height: opened.height, lines };
      });
      download("two-videos.png", await besidePng(sides));
    } catch (error) {
      toast.error("The picture wasn't saved.", { description: (error as Error).message });
    }
  };
  const step = (pictures: number) => {
    const fps = Math.min(...inHands.map(({ result }) => result?.captureFps ?? 60));
    common(at + pictures / fps);
  };
  return (
    <div className="mx-auto grid max-w-6xl gap-4 p-5">
      <Keys
        actions={[
          {
            keys: "p",
            shown: "P",
            label: playing.length > 0 ? "pause" : "play both",
            run: playing.length > 0 ? pause : start,
          },
          { keys: "right", shown: "→", label: "one picture on", run: () => step(1) },
          { keys: "left", shown: "←", label: "one picture back", run: () => step(-1) },
        ]}
      />
      <header>
        <h1 className="text-xl font-semibold">Two videos</h1>
        <p className="text-soft">
          Lined up on a moment of each, and played together or one after the other: how a scene fills in, before
          and after a change. Neither is sent anywhere.
        </p>
      </header>
      {bothThere && (
        <div className="flex flex-wrap items-center gap-3 text-[13px]">
          <Button look="lit" hint="P" onClick={playing.length > 0 ? pause : start}>
            {playing.length > 0 ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}
            {playing.length > 0 ? "Pause" : "Play"}
          </Button>
          <ChoiceField
            quiet
            label="How they play"
            value={how}
            options={ways}
            onChange={(value) => setHow(value === "in turn" ? "in turn" : "together")}
          />
          <ChoiceField quiet label="Speed" value={rate} options={rates} onChange={setRate} />
          <Button hint="←" onClick={() => step(-1)}>
            Back
          </Button>
          <Button hint="→" onClick={() => step(1)}>
            On
          </Button>
          <span data-testid="common">
            <span className="figure">
              {at < 0 ? "−" : ""}
              {say.clock(Math.abs(1000 * at))}
            </span>{" "}
            from where they are lined up
          </span>
          <Button onClick={() => void save()}>Save both pictures as PNG</Button>
        </div>
      )}
      <div className="grid gap-5 md:grid-cols-2">
        {([0, 1] as const).map((side) => (
          <Side
            key={side}
            name={names[side]}
            session={sessions[side]}
            video={videos[side]}
            from={from[side]}
            ms={shown(side)}
            onFrom={(ms) => lineUp(side, ms)}
            onMoment={(ms) => lookAt(side, ms)}
            onFile={(file) => void open(side, file)}
          />
        ))}
      </div>
      {!inHands.some(({ file }) => file) && (
        <EmptyPanel title="Drop two videos here, or choose them one by one.">
          Screen recordings or a capture card&apos;s files of the same scene: MP4, WebM, MOV or MKV.
        </EmptyPanel>
      )}
    </div>
  );
}
