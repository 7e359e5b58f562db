/** A component on a page of its own, with the words of the product and a server that answers. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactElement } from "react";
import { MemoryRouter } from "react-router";
import { onTestFinished, vi } from "vitest";

import type { Facts, Piece, Plan, ShopView } from "../api/client";
import type { StationProps } from "../piece/context";
import { addWords } from "../i18n";

for (const words of Object.values(
  import.meta.glob<Record<string, unknown>>("../locales/*.json", {
    eager: true,
    import: "default",
  }),
))
  addWords(words);

// What a browser has and this page has not.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
Element.prototype.hasPointerCapture ??= () => false;
Element.prototype.scrollIntoView ??= () => undefined;

export interface Sent {
  method: string;
  path: string;
  body: unknown;
}

type Answers = Record<string, unknown>;

/**
 * Have requests answered, by method and path; a number is a status without a body. What is not
 * answered is 404. Returns what was sent.
 */
export function server(answers: Answers): Sent[] {
  const sent: Sent[] = [];
  onTestFinished(() => void vi.unstubAllGlobals());
  vi.stubGlobal("fetch", async (request: Request) => {
    const path = new URL(request.url, "http://localhost").pathname;
    const text = await request.clone().text();
    sent.push({ method: request.method, path, body: text ? (JSON.parse(text) as unknown) : null });
    const answer = answers[`${request.method} ${path}`] ?? 404;
    const [status, body] =
      typeof answer === "number" ? [answer, {}] : refused(answer) ? [422, answer] : [200, answer];
    return new Response(JSON.stringify(body), {
      status,
      headers: { "content-type": "application/json" },
    });
  });
  return sent;
}

function refused(answer: unknown): boolean {
  return typeof answer === "object" && answer !== null && "detail" in answer;
}

export const SHOP = { shop: { unit: "mm", ease: {} }, version: 1 } as unknown as ShopView;

/** Show an element, the server's facts known; the shop's unit is millimetres unless another is
 * named. */
export function show(element: ReactElement, unit: "mm" | "in" = "mm", known = facts()) {
  onTestFinished(() => {
    cleanup();
    sessionStorage.clear();
  });
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Infinity } },
  });
  client.setQueryData(["shop"], { ...SHOP, shop: { ...SHOP.shop, unit } });
  client.setQueryData(["facts"], known);
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter>{element}</MemoryRouter>
    </QueryClientProvider>,
  );
  return { client, user: userEvent.setup() };
}

/** Facts, a plan, a piece and what a station is given, with only what a test names. */
export function facts(some: Partial<Facts> = {}): Facts {
  return { kinds: [], parts: [], closures: [], metals: [], populations: [], ...some } as Facts;
}

export function plan(some: object = {}): Plan {
  return {
    steps: [], cuts: [], figures: [], ledger: [], advice: [], cautions: [], girths: [],
    ease_options: [], answers: {}, bends: [], formers: [], ...some,
  } as unknown as Plan; // prettier-ignore
}

export function piece(some: object = {}): Piece {
  return {
    id: 7, version: 3, name: "A piece", ticks: [], tryons: [], stations: {}, standing: {}, ...some,
  } as unknown as Piece; // prettier-ignore
}

export function station(some: Partial<StationProps> = {}): StationProps {
  return {
    piece: piece(),
    brief: { measures: {}, wire: {}, piece: { kind: "open_cuff" } } as StationProps["brief"],
    plan: plan(),
    problems: [],
    facts: facts(),
    shop: SHOP,
    edit: vi.fn(),
    take: vi.fn(),
    ...some,
  };
}

export { screen };
