import { renderToStaticMarkup } from "react-dom/server";
import { expect, it, vi } from "vitest";

import { LengthSlide } from "./LengthSlide";

vi.mock("react-i18next", () => ({
  useTranslation: () => ({
    t: (key: string, values?: { what?: string }) => `${key} ${values?.what ?? ""}`,
  }),
}));

function attributes(value: unknown, high: number, inches = false): Record<string, string> {
  const markup = renderToStaticMarkup(
    <LengthSlide
      label="length"
      value={value}
      low={250}
      high={high}
      inches={inches}
      onSlide={() => undefined}
    />,
  );
  return Object.fromEntries([...markup.matchAll(/([a-z-]+)="([^"]*)"/g)].map((m) => [m[1], m[2]]));
}

it("stands where the typed length is, whatever it is typed in", () => {
  expect(attributes("520", 900)).toMatchObject({ min: "250", max: "900", value: "520" });
  expect(attributes("20 in", 900).value).toBe("508");
  expect(attributes("20", 900, true).value).toBe("508");
});

it("reaches no further than is of use", () => {
  expect(attributes("520", 2000).max).toBe("1000");
});

it("says what it slides", () => {
  expect(attributes("520", 900)["aria-label"]).toContain("length");
});
