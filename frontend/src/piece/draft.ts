type Tree = Record<string, unknown> | unknown[];

/** A copy of a value with what stands at a path replaced; missing levels are made. */
export function withValue<T>(root: T, path: (string | number)[], value: unknown): T {
  const [key, ...rest] = path;
  if (key === undefined) return value as T;
  const base: Tree = Array.isArray(root)
    ? [...(root as unknown[])]
    : { ...((root ?? {}) as Record<string, unknown>) };
  if (root == null && typeof key === "number") return withValue([] as unknown as T, path, value);
  const holder = base as Record<string | number, unknown>;
  holder[key] = withValue(holder[key], rest, value);
  return base as T;
}

/** What a field shows of a typed value: text as typed, nothing for what is not there. */
export function asText(value: unknown): string {
  return value === null || value === undefined ? "" : String(value);
}

/** A figure as a number where it is one, as typed where it is not: then the server says why. */
export function asNumber(text: string): unknown {
  const trimmed = text.trim().replace(",", ".");
  if (trimmed === "") return undefined;
  return Number.isNaN(Number(trimmed)) ? text : Number(trimmed);
}

/** The dotted paths in which two briefs differ, for showing both versions side by side. */
export function differences(
  mine: unknown,
  theirs: unknown,
  path = "",
): { path: string; mine: string; theirs: string }[] {
  if (isTree(mine) || isTree(theirs)) {
    const [a, b] = [asTree(mine), asTree(theirs)];
    return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key) =>
      differences(a[key], b[key], path ? `${path}.${key}` : key),
    );
  }
  if (asText(mine) === asText(theirs)) return [];
  return [{ path, mine: asText(mine) || "–", theirs: asText(theirs) || "–" }];
}

function isTree(value: unknown): boolean {
  return typeof value === "object" && value !== null;
}

function asTree(value: unknown): Record<string, unknown> {
  return isTree(value) ? (value as Record<string, unknown>) : {};
}
