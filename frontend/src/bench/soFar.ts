/** What a maker tells on the way, as typed. */
export interface Told {
  count: string;
  over: string;
  left: string;
  happened: string;
  /** How many are to be made in all, blank for as many as the length wants. */
  in_all: string;
}

export const NOTHING: Told = { count: "", over: "", left: "", happened: "going_on", in_all: "" };

/** What may have happened on the way; only working wire runs out or breaks. */
export function happenings(woven: boolean): string[] {
  return woven ? ["going_on", "ran_out", "broke", "lost_count"] : ["going_on", "lost_count"];
}

/** What is sent of it: a lost count is not told, nor what is left of wire that ran out. */
export function toTell(entry: string, told: Told) {
  return {
    entry,
    happened: told.happened,
    over: told.over,
    in_all: told.in_all,
    count: told.happened === "lost_count" ? "" : told.count,
    left: told.happened === "ran_out" ? "" : told.left,
  };
}
