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
 * Rows for words under a wire, so that no line crosses words and no words lie over others. Words
 * run to the right of their line as long as they fit there, else to the left; the outermost lowest.
 */
export function markRows(marks: readonly Words[], width: number): Laid[] {
  const laid: Laid[] = marks.map(() => ({ row: 0, anchor: "end" }));
  // Words that run to the right end before the first line whose words run to the left.
  let limit = width;
  for (let i = marks.length - 1; i >= 0; i -= 1) {
    const { x, wide } = marks[i]!;
    if (x + wide + GAP <= limit) laid[i]!.anchor = "start";
    else limit = x;
  }
  const every = marks.map((_, i) => i);
  const starts = every.filter((i) => laid[i]!.anchor === "start").reverse();
  const ends = every.filter((i) => laid[i]!.anchor === "end");
  const done: number[] = [];
  for (const i of [...starts, ...ends]) {
    const [from, to] = spanOf(marks[i]!, laid[i]!.anchor);
    const above = done.filter((j) => {
      const [a, b] = spanOf(marks[j]!, laid[j]!.anchor);
      return a < to + GAP && b > from - GAP;
    });
    laid[i]!.row = Math.max(-1, ...above.map((j) => laid[j]!.row)) + 1;
    done.push(i);
  }
  return laid;
}

function spanOf({ x, wide }: Words, anchor: "start" | "end"): [number, number] {
  return anchor === "start" ? [x, x + wide] : [x - wide, x];
}
