import { copies, pathThrough, type Stroke } from "./frame";
import { toneOf } from "./tones";

// Fine wire drawn small keeps its colour: both outlines together are so much of it at most.
const MOST_OUTLINE = 0.6;

interface Props {
  strokes: readonly Stroke[];
  colour: string;
  /** px a mm, so that outlines stay thin at every scale. */
  scale: number;
}

/** A part's picture in millimetres, y upwards: wire outlined in ink, beads and findings filled. */
export function Shape({ strokes, colour, scale }: Props) {
  const every = strokes.flatMap((stroke) => copies(stroke).map((points) => ({ stroke, points })));
  return every.map(({ stroke, points }, i) => {
    const path = pathThrough(points, stroke.closed ?? false);
    const wide = stroke.width_mm ?? 0;
    const tone = toneOf(stroke.tone) ?? colour;
    if (wide === 0)
      return (
        <path key={i} d={path} fill={tone} stroke="var(--color-ink)" strokeWidth={1 / scale} />
      );
    return (
      <g key={i} fill="none">
        <path
          d={path}
          stroke="var(--color-ink)"
          strokeWidth={wide + Math.min(1.6 / scale, MOST_OUTLINE * wide)}
        />
        <path d={path} stroke={tone} strokeWidth={wide} />
      </g>
    );
  });
}
