import { useCallback, useState } from "react";

const KEY = "jamreel.chime";
export type Chime = "both" | "mark" | "none";
const CHIMES: Chime[] = ["both", "mark", "none"];

/** Whether the end of a wait is heard and marked, only marked, or neither; kept on this device. */
export function useChime() {
  const [chime, setChime] = useState<Chime>(() => {
    const kept = localStorage.getItem(KEY) as Chime | null;
    return kept && CHIMES.includes(kept) ? kept : "both";
  });
  const change = () => {
    const next = CHIMES[(CHIMES.indexOf(chime) + 1) % CHIMES.length] ?? "both";
    localStorage.setItem(KEY, next);
    setChime(next);
  };
  const sound = useCallback(() => chime === "both" && ring(), [chime]);
  return { chime, change, sound, marks: chime !== "none" };
}

/** Two soft tones, one above the other: heard over a tumbler, made here. */
function ring(): void {
  const context = new AudioContext();
  [659, 880].forEach((hertz, n) => {
    const from = context.currentTime + n * 0.35;
    const tone = context.createOscillator();
    const loud = context.createGain();
    tone.frequency.value = hertz;
    loud.gain.setValueAtTime(0.0001, from);
    loud.gain.exponentialRampToValueAtTime(0.3, from + 0.03);
    loud.gain.exponentialRampToValueAtTime(0.0001, from + 0.9);
    tone.connect(loud).connect(context.destination);
    tone.start(from);
    tone.stop(from + 1);
  });
}
