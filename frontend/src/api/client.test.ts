import { afterEach, expect, it, vi } from "vitest";

import { api, ApiError, ask } from "./client";

function answers(status: number, body: unknown) {
  const fetched = vi.fn((request: Request) => {
    void request;
    return Promise.resolve(
      new Response(JSON.stringify(body), {
        status,
        headers: { "Content-Type": "application/json" },
      }),
    );
  });
  vi.stubGlobal("fetch", fetched);
  return fetched;
}

afterEach(() => vi.unstubAllGlobals());

it("gives the data of an answer", async () => {
  const fetched = answers(200, { version: 3 });
  vi.stubGlobal("document", { cookie: "" });
  const got = await ask(
    api.GET("/api/shop", { baseUrl: "http://bench.test", fetch: fetched as never }),
  );
  expect(got).toEqual({ version: 3 });
  expect(fetched.mock.calls[0]?.[0].url).toBe("http://bench.test/api/shop");
});

it("throws what the server said, with its status", async () => {
  const fetched = answers(409, { type: "stale", detail: "Another tab was first.", version: 7 });
  vi.stubGlobal("document", { cookie: "" });
  const asked = ask(
    api.GET("/api/shop", { baseUrl: "http://bench.test", fetch: fetched as never }),
  );
  await expect(asked).rejects.toBeInstanceOf(ApiError);
  const error = (await asked.catch((one: unknown) => one)) as ApiError;
  expect(error.status).toBe(409);
  expect(error.message).toBe("Another tab was first.");
  expect(error.details).toMatchObject({ version: 7 });
});

it("sends the page's token with every change and with no look", async () => {
  vi.stubGlobal("document", { cookie: "theme=dark; jamreel_csrf=a%2Bb; other=1" });
  const fetched = answers(200, {});
  const options = { baseUrl: "http://bench.test", fetch: fetched as never };
  await api.POST("/api/plan", { ...options, body: { brief: {} } as never });
  await api.GET("/api/shop", options);
  const [change, look] = fetched.mock.calls.map(([request]) => request.headers.get("X-CSRFToken"));
  expect(change).toBe("a+b");
  expect(look).toBeNull();
});
