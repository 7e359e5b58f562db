import type { WovenShown } from "../api/client";

/** A place in space, or as it is seen: right, up, towards the eye [mm]. */
export type Place = readonly [number, number, number];

/** How a body is turned: about its own length, then about the upright [degrees]. */
export interface Turn {
  roll: number;
  yaw: number;
}

export const FACE: Turn = { roll: 0, yaw: 0 };
export const EDGE: Turn = { roll: -90, yaw: 0 };
export const END: Turn = { roll: 0, yaw: 90 };

/** A short stretch of wire, or a bead, as it is seen. */
export interface Seen {
  kind: "wire" | "bead";
  /** Whether it is what holds the rest: a bar, a core, a base wire. */
  holds: boolean;
  points: readonly Place[];
  /** Thickness of a wire; of a bead across and along its hole, as seen, and how its hole lies. */
  wide: number;
  long: number;
  slant: number;
  colour: string;
  /** How near to the eye it is, and how far along its own wire. */
  depth: number;
}

/** Rows that are looked at: the first of them, and how many. */
export interface Window {
  first: number;
  count: number;
}

const RAD = Math.PI / 180;
// A wire is drawn in stretches of so many points: enough to lie over and under in the right places.
const STRETCH = 2;
// A straight bar is cut up so that what lies across it is sorted with the part of it that it crosses.
const BAR_STEP_MM = 0.8;

export function turned([x, y, z]: Place, { roll, yaw }: Turn): Place {
  const [cr, sr] = [Math.cos(roll * RAD), Math.sin(roll * RAD)];
  const [cw, sw] = [Math.cos(yaw * RAD), Math.sin(yaw * RAD)];
  const up = y * cr - z * sr;
  const near = y * sr + z * cr;
  return [x * cw + near * sw, up, near * cw - x * sw];
}

/** A turn by so many degrees, kept within one whole turn. */
export function further(turn: Turn, roll: number, yaw: number): Turn {
  const within = (angle: number) => ((((angle + 180) % 360) + 360) % 360) - 180;
  return { roll: within(turn.roll + roll), yaw: within(turn.yaw + yaw) };
}

/** The rows round the one that is worked on, whole cells of them. */
export function windowAt(shown: WovenShown, upto: number, rows: number): Window {
  const cell = shown.cell_rows;
  const count = Math.min(Math.max(Math.ceil(rows / cell) * cell, cell), up(shown.rows, cell));
  const last = Math.min(up(Math.max(upto, 1), cell), up(shown.rows, cell));
  return { first: Math.max(0, last - count), count };
}

/** How many rows are about so long, one at least. */
export function rowsIn(shown: WovenShown, mm: number): number {
  return Math.max(1, Math.round((mm * shown.cell_rows) / shown.advance_mm));
}

function up(rows: number, cell: number): number {
  return Math.ceil(rows / cell) * cell;
}

/** How much of a strand is laid when so many rows are done, 0 to 1. */
export function laid(row: number, rows: number, upto: number): number {
  if (rows === 0) return 1;
  return Math.min(Math.max((upto - row) / rows, 0), 1);
}

/** The first part of a line, by its length. */
export function begun(points: readonly Place[], share: number): Place[] {
  if (share >= 1) return [...points];
  const runs = points.slice(1).map((point, i) => apart(point, points[i] ?? point));
  let left = share * runs.reduce((sum, run) => sum + run, 0);
  const found: Place[] = points[0] && share > 0 ? [points[0]] : [];
  for (const [i, run] of runs.entries()) {
    if (left <= 0) break;
    const [a, b] = [points[i], points[i + 1]];
    if (!a || !b) break;
    const part = run > left ? left / run : 1;
    const along = (n: number) => at(a, n) + (at(b, n) - at(a, n)) * part;
    found.push([along(0), along(1), along(2)]);
    left -= run;
  }
  return found;
}

function at(place: Place, n: number): number {
  return place[n] ?? 0;
}

function apart(a: Place, b: Place): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

type Bead = WovenShown["beads"][number];

/** Whether a place lies within a bead: the wire in its hole is not seen. */
export function within(bead: Bead, [x, y, z]: Place): boolean {
  const [bx, by, bz] = bead.at;
  const along = bead.along_mm / 2;
  const across = bead.across_mm / 2;
  const [a, b] = bead.lengthwise ? [along, across] : [across, along];
  return ((x - bx) / a) ** 2 + ((y - by) / b) ** 2 + ((z - bz) / across) ** 2 < 1;
}

/** Everything that is seen of some rows, the furthest first. */
export function seen(shown: WovenShown, rows: Window, upto: number, turn: Turn): Seen[] {
  const { cell_rows: cell, advance_mm: advance } = shown;
  const found: Seen[] = [];
  const threaded: Bead[] = [];
  const cells = Math.ceil(rows.count / cell);
  for (let n = 0; n < cells; n += 1) {
    const row = rows.first + n * cell;
    const x = n * advance;
    const beads = shown.beads.filter((bead) => row + bead.row < Math.min(upto, shown.rows));
    for (const bead of beads) {
      found.push(asBead(bead, x, turn));
      const [bx, by, bz] = bead.at;
      threaded.push({ ...bead, at: [bx + x, by, bz] });
    }
    for (const strand of shown.strands) {
      if (strand.rows === 0) continue;
      const share = laid(row + strand.row, strand.rows, Math.min(upto, shown.rows));
      const points = begun(strand.points, share);
      const open = shown.over ? [] : beads;
      found.push(...asWire(strand, points, x, turn, open));
    }
  }
  for (const bar of shown.strands.filter((one) => one.rows === 0))
    found.push(...asBar(bar, cells, advance, turn, threaded));
  return found.sort((a, b) => a.depth - b.depth);
}

type Strand = WovenShown["strands"][number];

function asWire(
  strand: Strand,
  points: readonly Place[],
  x: number,
  turn: Turn,
  beads: readonly Bead[],
): Seen[] {
  const found: Seen[] = [];
  for (let i = 0; i + 1 < points.length; i += STRETCH) {
    const part = points.slice(i, i + STRETCH + 1);
    const middle = part[Math.floor(part.length / 2)] as Place;
    if (beads.some((bead) => within(bead, middle))) continue;
    found.push(piece(strand, part, x, turn, false));
  }
  return found;
}

/** A bar or a core through all cells, a little longer than they are, but where it is in a bead. */
function asBar(
  strand: Strand,
  cells: number,
  advance: number,
  turn: Turn,
  beads: readonly Bead[],
): Seen[] {
  const points = strand.points;
  const found: Seen[] = [];
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return found;
  if (points.length > 2) {
    for (let n = 0; n < cells; n += 1)
      for (let i = 0; i + 1 < points.length; i += 1)
        found.push(piece(strand, points.slice(i, i + 2), n * advance, turn, true));
    return found;
  }
  const over = strand.wire_mm;
  const long = cells * advance;
  const steps = Math.ceil((long + 2 * over) / BAR_STEP_MM);
  const step = (long + 2 * over) / steps;
  for (let i = 0; i < steps; i += 1) {
    const a: Place = [-over + i * step, first[1], first[2]];
    const b: Place = [a[0] + step, first[1], first[2]];
    const middle: Place = [a[0] + step / 2, first[1], first[2]];
    if (beads.some((bead) => within(bead, middle))) continue;
    found.push(piece(strand, [a, b], 0, turn, true));
  }
  return found;
}

function piece(
  strand: Strand,
  points: readonly Place[],
  x: number,
  turn: Turn,
  holds: boolean,
): Seen {
  const placed = points.map(([px, py, pz]) => turned([px + x, py, pz], turn));
  const depth = placed.reduce((sum, one) => sum + one[2], 0) / placed.length;
  return {
    kind: "wire",
    holds,
    points: placed,
    wide: strand.wire_mm,
    long: 0,
    slant: 0,
    colour: strand.colour,
    depth,
  };
}

/** A bead as an ellipse: its hole's way as it is seen, and how much of its length is. */
function asBead(bead: Bead, x: number, turn: Turn): Seen {
  const [bx, by, bz] = bead.at;
  const middle = turned([bx + x, by, bz], turn);
  const hole = turned(bead.lengthwise ? [1, 0, 0] : [0, 1, 0], turn);
  const flat = Math.hypot(hole[0], hole[1]);
  const { across_mm: across, along_mm: along } = bead;
  return {
    kind: "bead",
    holds: false,
    points: [middle],
    wide: across,
    long: Math.hypot(along * flat, across * Math.sqrt(Math.max(0, 1 - flat * flat))),
    slant: Math.atan2(hole[1], hole[0]),
    colour: bead.colour,
    depth: middle[2],
  };
}

/** The corners of all that is seen [mm]. */
export function boxOf(pieces: readonly Seen[]): {
  low: [number, number];
  high: [number, number];
} {
  const low: [number, number] = [Infinity, Infinity];
  const high: [number, number] = [-Infinity, -Infinity];
  for (const one of pieces)
    for (const [x, y] of one.points) {
      const half = Math.max(one.wide, one.long) / 2;
      low[0] = Math.min(low[0], x - half);
      low[1] = Math.min(low[1], y - half);
      high[0] = Math.max(high[0], x + half);
      high[1] = Math.max(high[1], y + half);
    }
  return Number.isFinite(low[0]) ? { low, high } : { low: [0, 0], high: [1, 1] };
}

// Distances that differ less are shown as one, mm.
const SAME_MM = 0.05;

/** How far places side by side are from each other, once where all are alike [mm]. */
export function distances(places: readonly number[]): number[] {
  const apart = places.slice(1).map((place, i) => place - (places[i] ?? 0));
  const alike = apart.every((one) => Math.abs(one - (apart[0] ?? 0)) < SAME_MM);
  return alike ? apart.slice(0, 1) : apart;
}

/** How far marks lie from the middle of what is so long, those on both sides of it once [mm]. */
export function fromMiddle(marks: readonly number[], long: number): number[] {
  const ways = marks.map((mark) => Math.round(10 * Math.abs(mark - long / 2)) / 10);
  return [...new Set(ways)].sort((a, b) => a - b);
}
