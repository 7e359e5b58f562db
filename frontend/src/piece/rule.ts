import {
  copies,
  eachPlaced,
  setDown,
  type Placed,
  type Shapes,
  type Stroke,
} from "../shared/drawings/frame";

/**
 * How much of a piece the Rule draws, the most first: every part by its outline; beads and what is
 * bought by their outline and wire as a bar; neighbours that are alike as one bar.
 */
export type RuleStep = "outlines" | "beads" | "rows";

// From these scales on [px a mm] outlines, and then single beads, can still be told.
const OUTLINES_PX = 1.7;
const BEADS_PX = 0.75;
// A piece is not drawn smaller than this share of the width for the sake of its height, but for one
// so short that it is seen well at this scale [px a mm].
const LEAST_SHARE = 0.35;
const SEEN_WELL_PX = 2.2;

/** The step of simplification at a scale, px a mm. */
export function ruleStep(scale: number): RuleStep {
  if (scale >= OUTLINES_PX) return "outlines";
  return scale >= BEADS_PX ? "beads" : "rows";
}

/**
 * The one scale of the Rule, both ways, px a mm: the whole width, or less where a piece as high as
 * this would have no room.
 */
export function ruleScale(width: number, length: number, room: number, highest: number): number {
  const wide = width / length;
  const tall = highest > 0 ? room / highest : Infinity;
  return Math.max(Math.min(wide, tall), Math.min(wide * LEAST_SHARE, SEEN_WELL_PX));
}

/** How far what lies in the line reaches up and down from it, mm; drops hang apart. */
export function heightOf(placed: readonly Placed[], shapes: Shapes): { up: number; down: number } {
  const reach = { up: 0, down: 0 };
  for (const one of placed) {
    if (hangs(shapes[one.shape] ?? [])) continue;
    for (const stroke of shapes[one.shape] ?? [])
      for (const [, y] of copies(stroke).flat()) {
        const half = (stroke.width_mm ?? 0) / 2;
        reach.up = Math.max(reach.up, y + half);
        reach.down = Math.max(reach.down, half - y);
      }
  }
  return reach;
}

/**
 * Where the line lies between two heights, px: in their middle, or nearer to one of them where the
 * piece reaches further to the other side.
 */
export function lineAt(
  top: number,
  bottom: number,
  reach: { up: number; down: number },
  scale: number,
): number {
  const middle = (top + bottom) / 2;
  const shift = ((reach.up - reach.down) * scale) / 2;
  const most = (bottom - top) / 3;
  return middle + Math.max(-most, Math.min(shift, most));
}

/** Whether a shape hangs down from where it is set: it lies almost wholly below the line. */
export function hangs(strokes: readonly Stroke[]): boolean {
  const ys = strokes.flatMap((stroke) => copies(stroke).flat()).map(([, y]) => y);
  if (ys.length === 0) return false;
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  return low < -2 && high < 0.35 * -low;
}

/** How far below the line what hangs reaches, mm; 0 where nothing does. */
export function deepest(placed: readonly Placed[], shapes: Shapes): number {
  return eachPlaced(placed)
    .filter((one) => hangs(shapes[one.shape] ?? []))
    .flatMap((one) =>
      (shapes[one.shape] ?? []).flatMap((stroke) =>
        copies(stroke)
          .flat()
          .map((point) => -setDown(one, point)[1]),
      ),
    )
    .reduce((most, y) => Math.max(most, y), 0);
}

/** Where along the piece a shape that hangs reaches lowest, mm: there it is broken off. */
export function lowestAt(one: Placed, strokes: readonly Stroke[]): number {
  const points = strokes.flatMap((stroke) => copies(stroke).flat());
  const down = points.map((point) => setDown(one, point));
  const low = Math.min(...down.map(([, y]) => y));
  const xs = down.filter(([, y]) => y < low + 0.5).map(([x]) => x);
  return xs.length > 0 ? xs.reduce((sum, x) => sum + x, 0) / xs.length : one.at[0];
}

/** What is drawn of a shape at a step: all of it, or only what is filled. */
export function strokesAt(step: RuleStep, strokes: readonly Stroke[]): readonly Stroke[] {
  return step === "outlines" ? strokes : strokes.filter((stroke) => !stroke.width_mm);
}

/** Where the strands of a string run beside each other, px from its middle. */
export function strandsAt(strands: number): number[] {
  const apart = 4;
  return Array.from({ length: strands }, (_, n) => (n - (strands - 1) / 2) * apart);
}
