import { beforeEach, expect, it } from "vitest";

import type { Brief } from "../api/client";
import { clearShelves, GONE_MS, shelfOf } from "./shelf";

class Memory implements Storage {
  private kept = new Map<string, string>();
  get length() {
    return this.kept.size;
  }
  key = (i: number) => [...this.kept.keys()][i] ?? null;
  getItem = (key: string) => this.kept.get(key) ?? null;
  setItem = (key: string, value: string) => void this.kept.set(key, value);
  removeItem = (key: string) => void this.kept.delete(key);
  clear = () => this.kept.clear();
}

const typed = (trim: string) => ({ cutting: { trim } }) as unknown as Brief;
let storage: Memory;
let time: number;
const now = () => time;

beforeEach(() => {
  storage = new Memory();
  time = 1_000_000;
});

it("keeps what two tabs type on one piece apart", () => {
  const [one, two] = ["a", "b"].map((tab) => shelfOf(7, tab, storage, now));
  one!.write({ version: 3, brief: typed("1") });
  two!.write({ version: 3, brief: typed("2") });
  expect(one!.read()?.brief).toEqual(typed("1"));
  expect(two!.read()?.brief).toEqual(typed("2"));
  two!.clear();
  expect(one!.read()?.brief).toEqual(typed("1"));
});

it("picks up what a closed tab left, and not what an open one is still sending", () => {
  shelfOf(7, "closed", storage, now).write({ version: 3, brief: typed("1") });
  time += GONE_MS + 1;
  shelfOf(7, "open", storage, now).write({ version: 3, brief: typed("2") });
  shelfOf(71, "closed", storage, now).write({ version: 1, brief: typed("other piece") });
  const fresh = shelfOf(7, "fresh", storage, now);
  expect(fresh.read()?.brief).toEqual(typed("1"));
  expect(fresh.read()).toBeNull();
});

it("picks up what was kept before tabs were told apart, and passes over what is no draft", () => {
  storage.setItem("jamreel.unsaved.7", JSON.stringify({ version: 2, brief: typed("9") }));
  expect(shelfOf(7, "t", storage, now).read()?.brief).toEqual(typed("9"));
  storage.setItem("jamreel.unsaved.8.t", "{not json");
  expect(shelfOf(8, "t", storage, now).read()).toBeNull();
});

it("lets go of all tabs' drafts when their maker signs out, and of nothing else", () => {
  for (const tab of ["a", "b"])
    shelfOf(7, tab, storage, now).write({ version: 1, brief: typed("1") });
  storage.setItem("jamreel.theme", "dark");
  clearShelves(storage);
  expect(shelfOf(7, "a", storage, now).read()).toBeNull();
  expect(storage.length).toBe(1);
});
