const KEY = "jamreel.tab";

/** The name of this tab: the same after a reload, another in a tab that was opened from it. */
export function tab(): string {
  const [entry] = performance.getEntriesByType("navigation") as PerformanceNavigationTiming[];
  const before = sessionStorage.getItem(KEY);
  named ??=
    before && entry?.type === "reload"
      ? before
      : crypto.getRandomValues(new Uint32Array(2)).join("");
  sessionStorage.setItem(KEY, named);
  return named;
}

let named: string | undefined;
