import { afterEach, beforeEach, expect, it, vi } from "vitest";

import { patient } from "./patient";

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const aSave = () => new Request("http://bench/api/shop", { method: "PUT", body: "{}" });
const busy = () => new Response("", { status: 503, headers: { "Retry-After": "1" } });

it("asks a busy server again, with the same body, until it answers", async () => {
  const bodies: string[] = [];
  const answers = [busy(), busy(), new Response("good")];
  const answer = patient(aSave(), async (request) => {
    bodies.push(await request.text());
    return answers.shift() ?? busy();
  });
  await vi.runAllTimersAsync();
  expect(await (await answer).text()).toBe("good");
  expect(bodies).toEqual(["{}", "{}", "{}"]);
});

it("hands on what stays busy, and any other fault at once", async () => {
  let calls = 0;
  const stays = patient(aSave(), async () => {
    calls += 1;
    return busy();
  });
  await vi.runAllTimersAsync();
  expect((await stays).status).toBe(503);
  expect(calls).toBe(5);
  expect((await patient(aSave(), async () => new Response("", { status: 507 }))).status).toBe(507);
});
