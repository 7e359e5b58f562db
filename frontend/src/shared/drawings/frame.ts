import type { Sheet } from "../../api/client";

/** How millimetres of a sheet lie on the screen: y upwards there, downwards here. */
export interface Frame {
  scale: number;
  x: number;
  y: number;
}

// Room for the figures beside dimension lines, in px.
const MARGIN_X = 24;
const MARGIN_Y = 30;
const WORDS_X = 122;

export function place({ scale, x, y }: Frame, [mmX, mmY]: [number, number]): [number, number] {
  return [x + mmX * scale, y - mmY * scale];
}

export type Stroke = NonNullable<Sheet["strokes"]>[number];
export type Placed = NonNullable<Sheet["placed"]>[number];

type Points = [number, number][];

// Points are sent as the first and the steps to each next, in hundredths of a millimetre.
const SENT_AS = 100;

/** The points of a stroke, mm. */
export function pointsOf({ points }: Pick<Stroke, "points">): Points {
  let [x, y] = [0, 0];
  return Array.from({ length: points.length / 2 }, (_, i) => {
    x += points[2 * i] ?? 0;
    y += points[2 * i + 1] ?? 0;
    return [x / SENT_AS, y / SENT_AS];
  });
}

/** Points as a stroke holds them: `pointsOf` the other way round. */
export function asHeld(points: readonly (readonly [number, number])[]): number[] {
  const whole = points.map((point) => point.map((n) => Math.round(SENT_AS * n)));
  return whole.flatMap(([x = 0, y = 0], i) => {
    const [beforeX = 0, beforeY = 0] = whole[i - 1] ?? [];
    return [x - beforeX, y - beforeY];
  });
}

export type Shapes = Readonly<Record<string, readonly Stroke[]>>;

const unpacked = new WeakMap<NonNullable<Sheet["shapes"]>, Shapes>();

/**
 * The shapes of a sheet by name. They are sent with each stroke once: a shape tells the number of
 * each of its strokes and where it begins, in hundredths of a millimetre.
 */
export function shapesOf(sheet: Pick<Sheet, "shapes">): Shapes {
  const sent = sheet.shapes;
  if (!sent) return {};
  const known = unpacked.get(sent);
  if (known) return known;
  const rows = Object.entries(sent.made).map(([name, row]) => {
    const strokes = Array.from({ length: row.length / 3 }, (_, i) => {
      const [which = 0, x = 0, y = 0] = row.slice(3 * i, 3 * i + 3);
      const stroke = sent.strokes[which];
      return stroke && { ...stroke, points: [x, y, ...stroke.points.slice(2)] };
    });
    return [name, strokes.filter((stroke) => stroke !== undefined)] as const;
  });
  const found = Object.fromEntries(rows);
  unpacked.set(sent, found);
  return found;
}

/** Shapes as a sheet holds them: `shapesOf` the other way round. */
export function asSent(shapes: Shapes): NonNullable<Sheet["shapes"]> {
  const strokes: Stroke[] = [];
  const made = Object.entries(shapes).map(([name, every]) => {
    const row = every.flatMap((stroke) => {
      const [x = 0, y = 0, ...rest] = stroke.points;
      strokes.push({ ...stroke, points: [0, 0, ...rest] });
      return [strokes.length - 1, x, y];
    });
    return [name, row] as const;
  });
  return { strokes, made: Object.fromEntries(made) };
}

/** The points of a stroke, once for each time that it is drawn. */
export function copies(stroke: Stroke): Points[] {
  const points = pointsOf(stroke);
  const [dx, dy] = stroke.step ?? [0, 0];
  return Array.from({ length: stroke.times ?? 1 }, (_, n) =>
    n === 0 ? points : points.map(([x, y]) => [x + n * dx, y + n * dy]),
  );
}

/** A shape set down again and again, as so many shapes set down once. */
export function eachPlaced(placed: readonly Placed[]): Placed[] {
  return placed.flatMap((one) =>
    Array.from({ length: one.times ?? 1 }, (_, n) => {
      const [x, y] = one.at;
      return n === 0 ? one : { ...one, at: [x + n * (one.pitch_mm ?? 0), y] };
    }),
  );
}

// A closed line of more points than a block with its corners cut off is round.
const ROUND_FROM = 9;

/** A line as an SVG path, y downwards: round through its points where it is round. */
export function pathThrough(points: Points, closed: boolean): string {
  const at = points.map(([x, y]): [number, number] => [x, -y]);
  const [first = [0, 0], ...rest] = at;
  if (!closed || at.length < ROUND_FROM) {
    return `M${first.join(" ")}L${rest.map((p) => p.join(" ")).join("L")}${closed ? "Z" : ""}`;
  }
  const n = at.length;
  const point = (i: number) => at[(i + n) % n] ?? first;
  const curves = at.map((_, i) => {
    const [a, b, c, d] = [point(i - 1), point(i), point(i + 1), point(i + 2)];
    const out = [0, 1].map((k) => short((b[k] ?? 0) + ((c[k] ?? 0) - (a[k] ?? 0)) / 6));
    const into = [0, 1].map((k) => short((c[k] ?? 0) - ((d[k] ?? 0) - (b[k] ?? 0)) / 6));
    return `C${out.join(" ")} ${into.join(" ")} ${c.join(" ")}`;
  });
  return `M${first.join(" ")}${curves.join("")}Z`;
}

function short(value: number): number {
  return Math.round(value * 1000) / 1000;
}

// A line that turns no further than this at a point goes round there [rad]; it is a corner otherwise.
const CORNER = 0.4;

/** A line as an SVG path, on the screen already: round where it turns little, straight at corners. */
export function smoothPath(points: Points, closed: boolean): string {
  const n = points.length;
  const point = (i: number) => points[closed ? (i + n) % n : i];
  const way = (a: Points[number], b: Points[number]) => Math.atan2(b[1] - a[1], b[0] - a[0]);
  /** Which way the line goes at a point, from one to the next: halfway between both but at corners. */
  const heads = (i: number, along: number) => {
    const [before, here, after] = [point(i - 1), point(i), point(i + 1)];
    if (!before || !here || !after) return along;
    const turn = Math.sin(way(here, after) - way(before, here));
    const ahead = Math.cos(way(here, after) - way(before, here)) > 0;
    return ahead && Math.abs(turn) < Math.sin(CORNER) ? way(before, after) : along;
  };
  const curves = Array.from({ length: closed ? n : n - 1 }, (_, i) => {
    const [a, b] = [point(i), point(i + 1)];
    if (!a || !b) return "";
    const [along, far] = [way(a, b), Math.hypot(b[0] - a[0], b[1] - a[1]) / 3];
    const [out, into] = [heads(i, along), heads(i + 1, along)];
    const one = [a[0] + far * Math.cos(out), a[1] + far * Math.sin(out)];
    const two = [b[0] - far * Math.cos(into), b[1] - far * Math.sin(into)];
    return `C${[one, two, b].map((p) => p.map((v) => (v ?? 0).toFixed(1)).join(" ")).join(" ")}`;
  });
  const first = points[0] ?? [0, 0];
  return `M${first.map((v) => v.toFixed(1)).join(" ")}${curves.join("")}${closed ? "Z" : ""}`;
}

/** Where a point of a shape comes to lie. */
export function setDown(one: Placed, [x, y]: [number, number]): [number, number] {
  const [dx, dy] = one.at;
  return [dx + (one.mirrored ? (one.length_mm ?? 0) - x : x), dy + y];
}

/** What turns a shape end for end, where it is set down mirrored. */
export function flipped(one: Placed): string {
  return one.mirrored ? ` translate(${one.length_mm ?? 0} 0) scale(-1 1)` : "";
}

/** Whether a dimension stands upright, its line to the left of what it measures. */
export function upright(a: [number, number], b: [number, number]): boolean {
  return Math.abs(a[1] - b[1]) > Math.abs(a[0] - b[0]);
}

/** Two opposite corners of what is looked at, mm. */
export type Box = [[number, number], [number, number]];

/** The largest scale at which a box fits another, with little room round it. */
export function frameOf([[x0, y0], [x1, y1]]: Box, width: number, height: number): Frame {
  const scale = Math.min(
    (width - MARGIN_X) / Math.max(x1 - x0, 1e-6),
    (height - MARGIN_X) / Math.max(y1 - y0, 1e-6),
  );
  return {
    scale,
    x: width / 2 - ((x0 + x1) / 2) * scale,
    y: height / 2 + ((y0 + y1) / 2) * scale,
  };
}

/** The largest scale at which a sheet, dimension lines included, fits a box. */
export function frame(sheet: Sheet, width: number, height: number): Frame {
  const xs: number[] = [];
  const ys: number[] = [];
  for (const stroke of sheet.strokes ?? []) take(stroke, (point) => point);
  for (const one of eachPlaced(sheet.placed ?? []))
    for (const stroke of shapesOf(sheet)[one.shape] ?? []) take(stroke, (p) => setDown(one, p));

  function take(stroke: Stroke, at: (point: [number, number]) => [number, number]) {
    const half = (stroke.width_mm ?? 0) / 2;
    for (const point of copies(stroke).flat()) {
      const [x, y] = at(point);
      xs.push(x - half, x + half);
      ys.push(y - half, y + half);
    }
  }
  for (const dimension of sheet.dimensions ?? []) {
    const [a, b] = [dimension.a, dimension.b];
    if (upright(a, b)) xs.push(Math.min(a[0], b[0]) - (dimension.offset_mm ?? 0));
    else ys.push(Math.max(a[1], b[1]) + (dimension.offset_mm ?? 0));
  }
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  // Words that start at a place run to the right of it.
  const words = (sheet.labels ?? []).some((label) => label.anchor === "start") ? WORDS_X : 0;
  const scale = Math.min(
    (width - 2 * MARGIN_X - words) / (right - left),
    (height - 2 * MARGIN_Y) / (high - low),
  );
  return {
    scale,
    x: (width - words) / 2 - ((left + right) / 2) * scale,
    y: height / 2 + ((low + high) / 2) * scale,
  };
}
