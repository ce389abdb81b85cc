import { useEffect, useEffectEvent, useState } from "react";
import type { useAddress } from "../ui/address";

export const views = [
  { id: "tie", text: "As you tie it", says: "seen as you tie it" },
  { id: "across", text: "Facing you", says: "seen from behind, by someone facing you" },
  { id: "opposite", text: "Turned to the other side", says: "the same drawing turned half round" },
] as const;

export const hands = [
  { id: "right", text: "Right hand" },
  { id: "left", text: "Left hand" },
] as const;

export const looks = [
  { id: "laid", text: "Laid" },
  { id: "braid", text: "Braid" },
  { id: "mono", text: "Mono" },
] as const;

/** Pictures between two steps when playing or scrubbing. */
export const frames = 8;

/** Where in its steps a knot is shown, and whether it plays; the address follows. */
export function useSteps(last: number, [params, change]: ReturnType<typeof useAddress>) {
  const clamp = (n: number) => Math.min(Math.max(n, 0), last);
  // Kept here and not only in the address, so that quick presses all count.
  const [step, setStep] = useState(() => clamp(Number(params.get("step") ?? 1) || 0));
  const [playing, setPlaying] = useState(false);
  // Playing, the working end travels from step to step and stops at the last.
  useEffect(() => {
    if (!playing) return;
    if (step >= last) return setPlaying(false);
    const tick = setTimeout(
      () => setStep((now) => Math.min(now + 1 / frames, last)),
      Number.isInteger(step) ? 700 : 90,
    );
    return () => clearTimeout(tick);
  }, [playing, step, last]);
  const note = useEffectEvent((at: string) => change({ step: at }));
  useEffect(() => {
    if (!playing) note(String(step));
  }, [playing, step]);
  return {
    step,
    playing,
    /** The step in words. */
    shown: Math.ceil(step - 1e-9),
    go: (to: number) => {
      setPlaying(false);
      setStep(clamp(to));
    },
    by: (steps: number) => {
      setPlaying(false);
      setStep((now) => clamp(steps > 0 ? Math.floor(now + 1e-9) + 1 : Math.ceil(now - 1e-9) - 1));
    },
    play: () => {
      if (step >= last) setStep(0);
      setPlaying(!playing);
    },
  };
}

/** A sideways swipe: 1 to go on, −1 to go back. */
export function swipe(turn: (by: number) => void) {
  return (e: React.TouchEvent) => {
    const from = e.touches[0]?.clientX ?? 0;
    e.currentTarget.addEventListener(
      "touchend",
      (end) => {
        const by = ((end as TouchEvent).changedTouches[0]?.clientX ?? from) - from;
        if (Math.abs(by) > 40) turn(by < 0 ? 1 : -1);
      },
      { once: true },
    );
  };
}
