import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { renderToStaticMarkup } from "react-dom/server";
import { expect, it, vi } from "vitest";

import { Figure } from "./Figure";

const unit = vi.hoisted(() => ({ now: "mm" as "mm" | "in" }));
vi.mock("../hooks/useUnit", () => ({ useUnit: () => unit.now }));

function shown(figure: React.ReactElement, as: "mm" | "in" = "mm"): string {
  unit.now = as;
  const client = new QueryClient();
  const markup = renderToStaticMarkup(
    <QueryClientProvider client={client}>{figure}</QueryClientProvider>,
  );
  return markup.replace(/<[^>]+>/g, "").replace(/&nbsp;/g, " ");
}

it("writes millimetres to the places asked for", () => {
  expect(shown(<Figure mm={245.533} />)).toBe("245.5");
  expect(shown(<Figure mm={245.533} places={2} unit />)).toBe("245.53mm");
});

it("writes fractions of an inch as fractions", () => {
  expect(shown(<Figure mm={190.5} unit />, "in")).toBe("7 1⁄2in");
  expect(shown(<Figure mm={177.8} />, "in")).toBe("7");
});

it("signs both ways where a sign matters", () => {
  expect(shown(<Figure mm={3} signed />)).toBe("+ 3.0");
  expect(shown(<Figure mm={-3} signed />)).toBe("− 3.0");
  expect(shown(<Figure mm={-3} />)).toBe("−3.0");
  expect(shown(<Figure mm={0} signed />)).toBe("+ 0.0");
});
