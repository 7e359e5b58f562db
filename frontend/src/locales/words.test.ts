import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";

const SRC = join(__dirname, "..");

/** Every dotted key of the catalogues, forms of a plural as one. */
function kept(): Set<string> {
  const keys = new Set<string>();
  const walk = (value: unknown, path: string) => {
    if (typeof value === "string") keys.add(path.replace(/_(zero|one|other)$/, ""));
    else
      for (const [name, one] of Object.entries(value as object))
        walk(one, path ? `${path}.${name}` : name);
  };
  for (const file of readdirSync(__dirname).filter((name) => name.endsWith(".json")))
    walk(JSON.parse(readFileSync(join(__dirname, file), "utf-8")), "");
  return keys;
}

function sources(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((one) => {
    const path = join(folder, one.name);
    if (one.isDirectory()) return sources(path);
    return /\.tsx?$/.test(one.name) && !/\.(test|d)\.tsx?$/.test(one.name)
      ? [readFileSync(path, "utf-8")]
      : [];
  });
}

const source = sources(SRC).join("\n");
/** Keys named outright, and those with something put in at run time as patterns. */
const outright = new Set([...source.matchAll(/\bt\(\s*"([^"]+)"/g)].map((found) => found[1] ?? ""));
const quoted = new Set(
  [...source.matchAll(/["'`]([a-z_]+(?:\.[a-z_0-9]+)+)["'`]/g)].map((f) => f[1]),
);
const patterns = [...source.matchAll(/`([a-z_]+\.[^`\s]*\$\{[^`]*)`/g)].map((found) => {
  const parts = (found[1] ?? "").split(/\$\{[^}]*\}/);
  return new RegExp(`^${parts.map((one) => one.replace(/\./g, "\\.")).join(".+")}$`);
});

test("every word that a screen asks for is there", () => {
  const known = kept();
  const missing = [...outright].filter((key) => !known.has(key));
  expect(missing).toEqual([]);
});

test("every word that is there is asked for", () => {
  const left = [...kept()].filter(
    (key) =>
      !outright.has(key) &&
      !patterns.some((one) => one.test(key)) &&
      // Kept in a table, or the beginning of what is put together.
      ![...quoted].some((one) => key === one || key.startsWith(`${one}.`)),
  );
  expect(left).toEqual([]);
});
