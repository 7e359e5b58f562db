import { copies, type Stroke } from "./frame";
import { Shape } from "./Shape";

interface Props {
  strokes: readonly Stroke[];
  colour: string;
  width: number;
  height: number;
}

/** One part on its own, as large as its box. */
export function PartPicture({ strokes, colour, width, height }: Props) {
  const points = strokes.flatMap((stroke) => {
    const half = (stroke.width_mm ?? 0) / 2 + 0.3;
    return copies(stroke)
      .flat()
      .flatMap(([x, y]): [number, number][] => [
        [x - half, y - half],
        [x + half, y + half],
      ]);
  });
  if (points.length === 0) return <svg width={width} height={height} aria-hidden="true" />;
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [left, right, low, high] = [
    Math.min(...xs),
    Math.max(...xs),
    Math.min(...ys),
    Math.max(...ys),
  ];
  // A ring is not to fill a box that a long link needs.
  const scale = Math.min((width - 4) / (right - left), (height - 4) / (high - low), 5);
  const x = width / 2 - ((left + right) / 2) * scale;
  const y = height / 2 + ((low + high) / 2) * scale;
  return (
    <svg width={width} height={height} aria-hidden="true" className="shrink-0">
      <g transform={`translate(${x} ${y}) scale(${scale})`}>
        <Shape strokes={strokes} colour={colour} scale={scale} />
      </g>
    </svg>
  );
}
