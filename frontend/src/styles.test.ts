import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";

/** Every screen's code, by file. */
function sources(folder: string): [string, string][] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((one): [string, string][] => {
    const path = join(folder, one.name);
    if (one.isDirectory()) return sources(path);
    return path.endsWith(".tsx") ? [[path, readFileSync(path, "utf8")]] : [];
  });
}

const named = (kind: string) =>
  [
    ...readFileSync(join(__dirname, "styles.css"), "utf8").matchAll(
      RegExp(`--${kind}-([\\w-]+):`, "g"),
    ),
  ]
    .map(([, name]) => name)
    .filter((name) => name !== undefined);

test("type has the sizes of the scale, and screens the widths that have names", () => {
  expect(named("text")).toContain("body");
  const odd = sources(__dirname).flatMap(([path, text]) =>
    [
      ...text.matchAll(
        /(?<![\w-])(text-\[[\d.]+px\]|text-(?:xs|sm|lg|\d?xl)\b|m(?:in|ax)-\[\d+px\]:)/g,
      ),
    ].map(([found]) => `${path}: ${found}`),
  );
  expect(odd).toEqual([]);
});
