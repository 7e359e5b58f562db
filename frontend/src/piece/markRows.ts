/** A mark's words: where its line stands and how wide they are, px. */
export interface Words {
  x: number;
  wide: number;
}

export interface Laid {
  row: number;
  anchor: "start" | "end";
}

const GAP = 8;

/**
 * Rows for words under a wire, so that none lie over others. From the left half they run to the
 * right, from the right half to the left, as far as there is room; the outermost lie lowest.
 */
export function markRows(marks: readonly Words[], width: number): Laid[] {
  const laid = marks.map(({ x, wide }): Laid => {
    const right = x < width / 2 ? x + wide <= width : x - wide < 0;
    return { row: 0, anchor: right ? "start" : "end" };
  });
  const every = marks.map((_, i) => i);
  const starts = every.filter((i) => laid[i]!.anchor === "start").reverse();
  const ends = every.filter((i) => laid[i]!.anchor === "end");
  const done: number[] = [];
  for (const i of [...starts, ...ends]) {
    const [from, to] = spanOf(marks[i]!, laid[i]!.anchor);
    const beside = done.filter((j) => {
      const [a, b] = spanOf(marks[j]!, laid[j]!.anchor);
      return a < to + GAP && b > from - GAP;
    });
    laid[i]!.row = Math.max(-1, ...beside.map((j) => laid[j]!.row)) + 1;
    done.push(i);
  }
  return laid;
}

function spanOf({ x, wide }: Words, anchor: "start" | "end"): [number, number] {
  return anchor === "start" ? [x, x + wide] : [x - wide, x];
}
