import type { Sheet, WireShown } from "../api/client";
import { asHeld } from "../shared/drawings/frame";
import type { Box, Stroke } from "../shared/drawings/frame";

type Stage = WireShown["stages"][number];
type Point = [number, number];

/**
 * Which stage of a wire shows a step: the one that the step makes; for a step that shapes nothing
 * the last one before it.
 */
export function stageOf(wire: WireShown, steps: readonly string[], step: string): number {
  const own = wire.stages.findIndex((one) => one.step === step);
  if (own >= 0) return own;
  const at = steps.indexOf(step);
  let found = 0;
  wire.stages.forEach((one, i) => {
    const when = steps.indexOf(one.step);
    if (when >= 0 && when < at) found = i;
  });
  return found;
}

/** The wires that a step shapes first; those of the same entry that it leaves alone after them. */
export function wiresFor(wires: readonly WireShown[], step: string): WireShown[] {
  const shapes = (wire: WireShown) => wire.stages.some((one) => one.step === step);
  return [...wires].sort((a, b) => Number(shapes(b)) - Number(shapes(a)));
}

/** Where playing goes: one stage on or back, never past the ends. */
export function played(at: number, by: number, count: number): number {
  return Math.min(Math.max(at + by, 0), Math.max(count - 1, 0));
}

/** A stage as a drawing: the wire, what is being bent on its pin, and the next bend as a ghost. */
export function stageSheet(wire: WireShown, at: number): Sheet {
  const stage = wire.stages[at] ?? wire.stages[0];
  if (!stage) return { id: "stage", title: "", stations: ["form"] };
  const wide = wire.wire_mm;
  const line = (part: string, points: Stage["line"], width_mm = wide): Stroke => ({
    part,
    points: asHeld(points),
    closed: false,
    width_mm,
    tone: "",
    times: 1,
    step: [0, 0],
  });
  return {
    id: "stage",
    title: stage.title,
    stations: ["form"],
    placed: [],
    labels: [],
    strokes: [
      ...((stage.ghost ?? []).length > 1 ? [line("ghost", stage.ghost ?? [], 0)] : []),
      ...(stage.pins ?? []).map((pin, i) => ({
        ...line(`pin ${i}`, around(pin.at, pin.diameter / 2), 0),
        closed: true,
      })),
      line("wire", stage.line),
      ...(stage.rest ?? []).map((rest, i) => line(`wire ${i}`, rest)),
      ...(stage.made ?? []).map((made, i) => line(`made ${i}`, made)),
      ...(stage.marks ?? []).map((mark, i) => ({
        ...line(`mark ${i}`, around(mark, wide * 0.9), 0),
        closed: true,
      })),
    ],
    dimensions: [],
  };
}

function around([x, y]: Point, radius: number): Point[] {
  return Array.from({ length: 36 }, (_, i) => {
    const turn = (i / 36) * 2 * Math.PI;
    return [x + radius * Math.cos(turn), y + radius * Math.sin(turn)];
  });
}

// Round a bend at least so much of the wire is shown beside it, mm, and so much of its own size.
const BESIDE_MM = 6;
const BESIDE = 0.6;
// What takes up more of the whole than this needs no enlarging.
const LARGE = 0.4;

/** The corners of what a stage bends, to be enlarged; null where it is large, or nothing is bent. */
export function bentBox(stage: Stage | undefined): Box | null {
  const made = (stage?.made ?? []).flat();
  if (!stage || made.length === 0) return null;
  const pins = (stage.pins ?? []).flatMap(({ at, diameter }): Point[] => {
    const [x, y] = at;
    return [
      [x - diameter / 2, y - diameter / 2],
      [x + diameter / 2, y + diameter / 2],
    ];
  });
  const bent = corners([...made, ...pins]);
  const [wide, high] = sides(bent);
  const whole = sides(corners(stage.line));
  if (Math.max(wide, high) > LARGE * Math.max(...whole)) return null;
  const more = Math.max(BESIDE_MM, BESIDE * Math.max(wide, high));
  const [[x0, y0], [x1, y1]] = bent;
  return [
    [x0 - more, y0 - more],
    [x1 + more, y1 + more],
  ];
}

function corners(points: readonly Point[]): Box {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  return [
    [Math.min(...xs), Math.min(...ys)],
    [Math.max(...xs), Math.max(...ys)],
  ];
}

function sides([[x0, y0], [x1, y1]]: Box): [number, number] {
  return [x1 - x0, y1 - y0];
}

/** The pins of a stage, each diameter once. */
export function pinsOf(stage: Stage | undefined): number[] {
  return [...new Set((stage?.pins ?? []).map((pin) => pin.diameter))];
}

export interface Hardness {
  /** 0 is as soft as the curve goes, 1 as hard. */
  points: { at: number; hard: number; step: string; temper: string; annealed: boolean }[];
}

/** Hardness against step, from the wire as bought: what a small curve is drawn from. */
export function hardness(wire: WireShown): Hardness {
  const rows = wire.temper ?? [];
  const every = [wire.begins_mpa, ...rows.map((row) => row.yield_mpa)];
  const [low, high] = [Math.min(...every), Math.max(...every)];
  const of = (mpa: number) => (high > low ? (mpa - low) / (high - low) : 0.5);
  const count = Math.max(rows.length, 1);
  return {
    points: [
      { at: 0, hard: of(wire.begins_mpa), step: "-", temper: wire.begins, annealed: false },
      ...rows.map((row, i) => ({
        at: (i + 1) / count,
        hard: of(row.yield_mpa),
        step: row.step,
        temper: row.temper,
        annealed: row.annealed,
      })),
    ],
  };
}
