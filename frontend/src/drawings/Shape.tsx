import type { Stroke } from "./frame";
import { TONES } from "./tones";

interface Props {
  strokes: readonly Stroke[];
  colour: string;
  /** px a mm, so that outlines stay thin at every scale. */
  scale: number;
}

/** A part's picture in millimetres, y upwards: wire outlined in ink, beads and findings filled. */
export function Shape({ strokes, colour, scale }: Props) {
  return strokes.map((stroke, i) => {
    const [first, ...rest] = (stroke.points as [number, number][]).map(([x, y]) => `${x} ${-y}`);
    const path = `M${first}L${rest.join("L")}${stroke.closed ? "Z" : ""}`;
    const wide = stroke.width_mm ?? 0;
    const tone = TONES[stroke.tone ?? ""] ?? colour;
    if (wide === 0)
      return (
        <path key={i} d={path} fill={tone} stroke="var(--color-ink)" strokeWidth={1 / scale} />
      );
    return (
      <g key={i} fill="none">
        <path d={path} stroke="var(--color-ink)" strokeWidth={wide + 1.6 / scale} />
        <path d={path} stroke={tone} strokeWidth={wide} />
      </g>
    );
  });
}
