import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { renderToStaticMarkup } from "react-dom/server";
import { expect, it, vi } from "vitest";

import { Column } from "./Column";
import { Figure } from "./Figure";

const unit = vi.hoisted(() => ({ now: "mm" }));
vi.mock("./useUnit", () => ({ useUnit: () => unit.now }));

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
  // Read out as 1/2; seen as one over two.
  expect(shown(<Figure mm={190.5} unit />, "in")).toBe("7 1/212in");
  expect(shown(<Figure mm={17.46} />, "in")).toBe(" 11/161116");
  expect(shown(<Figure mm={177.8} />, "in")).toBe("7");
});

it("writes inches of one column one way", () => {
  const column = (
    <Column of={[171.45, 1.6]}>
      <Figure mm={171.45} /> <Figure mm={1.6} />
    </Column>
  );
  expect(shown(column, "in")).toBe("6.750 0.063");
  expect(shown(column)).toBe("171.4 1.6");
});

it("signs both ways where a sign matters", () => {
  expect(shown(<Figure mm={3} signed />)).toBe("+ 3.0");
  expect(shown(<Figure mm={-3} signed />)).toBe("− 3.0");
  expect(shown(<Figure mm={-3} />)).toBe("−3.0");
  expect(shown(<Figure mm={0} signed />)).toBe("+ 0.0");
});
