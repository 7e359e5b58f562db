import { afterEach, expect, it, vi } from "vitest";

import { signedOut } from "./away";
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
  const request = ask(
    api.GET("/api/shop", { baseUrl: "http://bench.test", fetch: fetched as never }),
  );
  await expect(request).rejects.toBeInstanceOf(ApiError);
  const error = (await request.catch((one: unknown) => one)) as ApiError;
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

it("says in words of its own what a proxy or no answer at all has none for", async () => {
  vi.stubGlobal("document", { cookie: "" });
  const gateway = vi.fn(() =>
    Promise.resolve(new Response("<h1>Bad gateway</h1>", { status: 502 })),
  );
  const gone = vi.fn(() => Promise.reject(new TypeError("Failed to fetch")));
  for (const [fetched, status] of [
    [gateway, 502],
    [gone, 0],
  ] as const) {
    const request = ask(
      api.GET("/api/shop", { baseUrl: "http://bench.test", fetch: fetched as never }),
    );
    const error = (await request.catch((one: unknown) => one)) as ApiError;
    expect(error).toBeInstanceOf(ApiError);
    expect(error.status).toBe(status);
    expect(error.message).toContain("does not answer");
  }
});

it("asks for the password when the server says that nobody is signed in", async () => {
  const fetched = answers(401, { type: "sign-in", detail: "You are signed out." });
  vi.stubGlobal("document", { cookie: "" });
  const told = vi.fn();
  const stop = signedOut.subscribe(told);
  const request = () =>
    ask(api.GET("/api/shop", { baseUrl: "http://bench.test", fetch: fetched as never }));
  await expect(request()).rejects.toBeInstanceOf(ApiError);
  await expect(request()).rejects.toBeInstanceOf(ApiError);
  expect(signedOut.snapshot()).toBe(true);
  expect(told).toHaveBeenCalledTimes(1);
  signedOut.say(false);
  stop();
});
