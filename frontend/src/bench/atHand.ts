import type { Plan, Sheet } from "../api/client";
import { asSent, pointsOf, shapesOf } from "../shared/drawings/frame";

type Step = Plan["steps"][number];

/** The names of the shapes in which a closure's halves and the string's end are drawn. */
const HALVES = ["receiving", "holding"];
const CLOSURE = "closure";
// Between two halves drawn side by side, mm.
const APART = 6;

/** The entry that a step is about, "" for one that is about the whole piece. */
export function entryOf(step: Pick<Step, "id" | "of"> | undefined): string {
  const id = step?.of?.[0] ?? step?.id ?? "";
  return id.includes("/") ? (id.split("/")[0] ?? "") : "";
}

/** The part that is worked on, drawn alone and with its length; null where it is not drawn. */
export function partSheet(sequence: Sheet | undefined, entry: string, label: string): Sheet | null {
  const placed = sequence?.placed ?? [];
  const names =
    entry === CLOSURE
      ? HALVES.filter((name) => placed.some((one) => one.shape === name))
      : placed.filter((one) => one.entry === entry).map((one) => one.shape);
  const shapes = [...new Set(names)].slice(0, entry === CLOSURE ? 2 : 1);
  if (!sequence || entry === "" || shapes.length === 0) return null;
  const drawn = shapesOf(sequence);
  let at = 0;
  const alone = shapes.map((shape) => {
    const found = placed.find((one) => one.shape === shape);
    const length = found?.length_mm ?? 0;
    const here = at;
    at += length + APART;
    return { shape, length, here };
  });
  return {
    id: "part",
    title: label,
    stations: ["form"],
    strokes: [],
    labels: [],
    shapes: asSent(Object.fromEntries(shapes.map((name) => [name, drawn[name] ?? []]))),
    placed: alone.map(({ shape, here, length }) => ({
      shape,
      at: [here, 0],
      turn: 0,
      mirrored: false,
      entry,
      length_mm: length,
      times: 1,
      pitch_mm: 0,
    })),
    dimensions: alone
      .filter(({ length }) => length > 0)
      .map(({ length, here }, i) => ({
        a: [here, 0],
        b: [here + length, 0],
        value_mm: length,
        label: i === 0 ? label : `${label} `,
        offset_mm: -below(sequence, shapes),
      })),
  };
}

/** How far below the line the dimension of a part stands, mm. */
function below(sequence: Sheet, shapes: readonly string[]): number {
  const ys = shapes.flatMap((name) =>
    (shapesOf(sequence)[name] ?? []).flatMap((stroke) =>
      pointsOf(stroke).map(([, y]) => -y + (stroke.width_mm ?? 0) / 2),
    ),
  );
  return Math.max(2, ...ys) * 1.25;
}

/** The bends of the part that is worked on. */
export function bendsOf(plan: Plan, entry: string): Plan["bends"] {
  if (entry === "") return [];
  return plan.bends.filter((bend) => bend.places.some((on) => on.cut.split("/")[0] === entry));
}
