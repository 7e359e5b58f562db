import { expect, it } from "vitest";

import { happenings, toTell } from "./soFar";

const told = { count: "10", over: "40", left: "300", happened: "going_on", in_all: "" };

it("tells all that was typed", () => {
  expect(toTell("e1", told)).toEqual({ entry: "e1", ...told });
});

it("tells no count that was lost, and nothing left of wire that ran out", () => {
  expect(toTell("e1", { ...told, happened: "lost_count" })).toMatchObject({
    count: "",
    left: "300",
  });
  expect(toTell("e1", { ...told, happened: "ran_out" })).toMatchObject({ count: "10", left: "" });
});

it("offers what happens to wire only where wire is worked", () => {
  expect(happenings(true)).toContain("broke");
  expect(happenings(false)).toEqual(["going_on", "lost_count"]);
});
