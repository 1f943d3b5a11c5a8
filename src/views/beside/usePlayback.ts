import { useCallback, useEffect, useRef, useState, type RefObject } from "react";

/** Both at once, or the one and then the other. */
export type Together = "together" | "in turn";

/** Further apart than this two that play together are brought together again, s. */
const mostApart = 0.06;

interface Lined {
  video: RefObject<HTMLVideoElement | null>;
  /** The moment of it that is lined up with the other's, s. */
  from: number;
}

/**
 * Two videos on one time that begins where they are lined up; it runs by the first of those that play.
 * @returns the time, s; which plays; and what moves it
 */
export function usePlayback(sides: readonly [Lined, Lined], rate: number, how: Together, length: number) {
  const [at, setAt] = useState(0);
  const [playing, setPlaying] = useState<readonly number[]>([]);
  const latest = useRef({ sides, how, length });
  useEffect(() => {
    latest.current = { sides, how, length };
  });
  const seek = useCallback((side: number, seconds: number) => {
    const lined = latest.current.sides[side];
    if (lined?.video.current) lined.video.current.currentTime = Math.max(0, lined.from + seconds);
  }, []);
  const pause = useCallback(() => {
    for (const { video } of latest.current.sides) video.current?.pause();
    setPlaying([]);
  }, []);
  const to = useCallback(
    (seconds: number) => {
      const clamped = Math.max(-Math.max(...latest.current.sides.map(({ from }) => from)), seconds);
      pause();
      setAt(clamped);
      for (const side of [0, 1]) seek(side, clamped);
    },
    [pause, seek],
  );
  const begin = useCallback(
    (which: readonly number[], from: number) => {
      for (const side of which) {
        seek(side, from);
        const video = latest.current.sides[side]?.video.current;
        // A browser that can't play it says so by the element's own error.
        void video?.play().catch(() => {});
      }
      setPlaying(which);
    },
    [seek],
  );
  const play = useCallback(() => {
    const from = at >= latest.current.length ? 0 : at;
    begin(latest.current.how === "together" ? [0, 1] : [0], from);
  }, [at, begin]);
  useEffect(() => {
    for (const { video } of sides) if (video.current) video.current.playbackRate = rate;
  }, [sides, rate, playing]);
  useEffect(() => {
    const [leading] = playing;
    if (leading === undefined) return;
    let frame = 0;
    const step = () => {
      const { sides: own, length: end, how: way } = latest.current;
      const lead = own[leading]?.video.current;
      if (!lead) return;
      const now = lead.currentTime - (own[leading]?.from ?? 0);
      setAt(now);
      for (const other of playing.slice(1)) {
        const video = own[other]?.video.current;
        const wanted = (own[other]?.from ?? 0) + now;
        if (video && !video.ended && Math.abs(video.currentTime - wanted) > mostApart)
          video.currentTime = wanted;
      }
      if (now < end && !lead.ended) frame = requestAnimationFrame(step);
      else if (way === "in turn" && leading === 0) {
        lead.pause();
        begin([1], 0);
      } else pause();
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [playing, begin, pause]);
  return { at, playing, play, pause, to };
}
