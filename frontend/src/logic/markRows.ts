/** A mark's words: where its line stands and how wide they are, px. */
export interface Words {
  x: number;
  wide: number;
}

export interface Laid {
  row: number;
  anchor: "start" | "end";
}

const GAP = 10;

/**
 * Rows for words under a wire: from the left half they run to the right, from the right half to the
 * left, the outermost lowest, so that no line crosses words and no words lie over others.
 */
export function markRows(marks: readonly Words[], width: number): Laid[] {
  const laid: Laid[] = marks.map(({ x }) => ({ row: 0, anchor: x < width / 2 ? "start" : "end" }));
  const every = marks.map((_, i) => i);
  const order = every.filter((i) => laid[i]?.anchor === "start").reverse();
  const right = every.filter((i) => laid[i]?.anchor === "end");
  const done: number[] = [];
  for (const i of [...order, ...right]) {
    const one = marks[i]!;
    const [from, to] = spanOf(one, laid[i]!.anchor);
    let row = 0;
    for (const j of done) {
      const other = marks[j]!;
      const [a, b] = spanOf(other, laid[j]!.anchor);
      const crossed = other.x > from - GAP && other.x < to + GAP;
      const over = a < to + GAP && b > from - GAP;
      // Below whatever line would run through its words; beside words, in another row.
      if (crossed || (over && laid[j]!.row === row)) row = Math.max(row, laid[j]!.row + 1);
    }
    laid[i]!.row = row;
    done.push(i);
  }
  return laid;
}

function spanOf({ x, wide }: Words, anchor: "start" | "end"): [number, number] {
  return anchor === "start" ? [x, x + wide] : [x - wide, x];
}
