import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { ApiError, type Brief, type Piece } from "../api/client";
import { Saver, type Kept, type Shelf, type Transport } from "./saver";

const typed = (trim: string) => ({ schema: "0.2", cutting: { trim } }) as unknown as Brief;

function piece(version: number, brief: Brief): Piece {
  return { id: 1, version, brief } as unknown as Piece;
}

class Drawer implements Shelf {
  kept: Kept | null = null;
  read = () => this.kept;
  write = (kept: Kept) => {
    this.kept = structuredClone(kept);
  };
  clear = () => {
    this.kept = null;
  };
}

/** A server that answers when it is told to. */
class Server implements Transport {
  calls: { version: number; brief?: Brief; way?: string }[] = [];
  private answers: { done: (piece: Piece) => void; fail: (error: unknown) => void }[] = [];

  save(version: number, brief: Brief) {
    return this.held({ version, brief });
  }
  move(version: number, way: "undo" | "redo") {
    return this.held({ version, way });
  }
  private held(call: (typeof this.calls)[number]) {
    this.calls.push(call);
    return new Promise<Piece>((done, fail) => this.answers.push({ done, fail }));
  }
  async answer(piece: Piece) {
    this.answers.shift()?.done(piece);
    await settled();
  }
  async fails(error: unknown) {
    this.answers.shift()?.fail(error);
    await settled();
  }
}

const settled = async () => {
  for (let i = 0; i < 8; i += 1) await Promise.resolve();
};

const stale = (version: number, brief: Brief) =>
  new ApiError(409, { type: "stale", title: "", status: 409, detail: "", version, brief });

const fault = (status: number, detail: string) =>
  new ApiError(status, { type: "x", title: "", status, detail });

describe("saving what is typed", () => {
  let server: Server;
  let drawer: Drawer;
  let saver: Saver;

  beforeEach(() => {
    vi.useFakeTimers();
    server = new Server();
    drawer = new Drawer();
    saver = new Saver(piece(1, typed("1")), server, drawer);
  });
  afterEach(() => vi.useRealTimers());

  it("sends one request at a time, and the newest of what was typed meanwhile", async () => {
    saver.edit(typed("1.1"));
    await settled();
    saver.edit(typed("1.2"));
    saver.edit(typed("1.3"));
    await settled();
    expect(server.calls.map((call) => call.brief)).toEqual([typed("1.1")]);
    await server.answer(piece(2, typed("1.1")));
    expect(server.calls.slice(1)).toEqual([{ version: 2, brief: typed("1.3") }]);
    await server.answer(piece(3, typed("1.3")));
    expect(server.calls).toHaveLength(2);
    expect(saver.snapshot()).toMatchObject({ saving: false, brief: typed("1.3") });
    expect(drawer.kept).toBeNull();
  });

  it("keeps typing on the shelf until it has arrived", async () => {
    saver.edit(typed("1.1"));
    await settled();
    expect(drawer.kept).toEqual({ version: 1, brief: typed("1.1"), sent: typed("1.1") });
    saver.edit(typed("1.2"));
    expect(drawer.kept?.brief).toEqual(typed("1.2"));
    expect(drawer.kept?.sent).toEqual(typed("1.1"));
  });

  it("takes what the server completed, unless more was typed meanwhile", async () => {
    const named = { ...typed("1.1"), piece: { entries: [{ id: "e1" }] } } as unknown as Brief;
    saver.edit(typed("1.1"));
    await settled();
    await server.answer(piece(2, named));
    expect(saver.snapshot().brief).toEqual(named);
    saver.edit(typed("1.4"));
    await settled();
    saver.edit(typed("1.5"));
    await server.answer(piece(3, typed("1.4")));
    expect(saver.snapshot().brief).toEqual(typed("1.5"));
  });

  it("goes offline when nothing gets through, and tries again by itself", async () => {
    saver.edit(typed("1.1"));
    await settled();
    await server.fails(new TypeError("no network"));
    expect(saver.snapshot()).toMatchObject({ offline: true, saving: false, brief: typed("1.1") });
    expect(drawer.kept?.brief).toEqual(typed("1.1"));
    await vi.advanceTimersByTimeAsync(2000);
    expect(server.calls).toHaveLength(2);
    await server.answer(piece(2, typed("1.1")));
    expect(saver.snapshot().offline).toBe(false);
    expect(drawer.kept).toBeNull();
  });

  it("waits for the password when signed out, and sends then what is typed", async () => {
    saver.edit(typed("1.1"));
    await settled();
    await server.fails(fault(401, "You are signed out."));
    expect(saver.snapshot()).toMatchObject({ offline: true, refused: "", saving: false });
    await vi.advanceTimersByTimeAsync(60_000);
    expect(server.calls).toHaveLength(1);
    expect(drawer.kept?.brief).toEqual(typed("1.1"));
    saver.tryAgain();
    await settled();
    await server.answer(piece(2, typed("1.1")));
    expect(saver.snapshot()).toMatchObject({ offline: false, piece: { version: 2 } });
    expect(drawer.kept).toBeNull();
  });

  it("says why a save was turned away, keeps what is typed, and goes on with the next edit", async () => {
    saver.edit(typed("1.1"));
    await settled();
    await server.fails(fault(422, "This brief is too long."));
    expect(saver.snapshot()).toMatchObject({ refused: "This brief is too long.", offline: false });
    await vi.advanceTimersByTimeAsync(60_000);
    expect(server.calls).toHaveLength(1);
    expect(drawer.kept?.brief).toEqual(typed("1.1"));
    saver.edit(typed("1.2"));
    expect(saver.snapshot().refused).toBe("");
    await settled();
    await server.answer(piece(2, typed("1.2")));
    expect(saver.snapshot().brief).toEqual(typed("1.2"));
  });

  it("says that the disk is full, and tries again less and less often", async () => {
    saver.edit(typed("1.1"));
    await settled();
    const waits: number[] = [];
    for (let n = 0; n < 9; n += 1) {
      await server.fails(fault(507, "The disk is full."));
      expect(saver.snapshot()).toMatchObject({ offline: true, refused: "The disk is full." });
      const before = server.calls.length;
      let waited = 0;
      while (server.calls.length === before) {
        await vi.advanceTimersByTimeAsync(500);
        waited += 500;
      }
      waits.push(waited);
    }
    expect(waits[0]).toBe(2000);
    expect(waits.at(-1)).toBe(20_000);
    expect([...waits].sort((a, b) => a - b)).toEqual(waits);
    await server.answer(piece(2, typed("1.1")));
    expect(saver.snapshot()).toMatchObject({ offline: false, refused: "" });
  });

  it("saves a brief as it is shown, though nothing was typed", async () => {
    saver.saveAsShown();
    await settled();
    expect(server.calls).toEqual([{ version: 1, brief: typed("1") }]);
  });

  it("stops at a stale version and lets the maker choose", async () => {
    saver.edit(typed("1.1"));
    await settled();
    await server.fails(stale(7, typed("9")));
    expect(saver.snapshot().stale?.version).toBe(7);
    saver.edit(typed("1.2"));
    await settled();
    expect(server.calls).toHaveLength(1);
    saver.keepMine();
    await settled();
    expect(server.calls[1]).toEqual({ version: 7, brief: typed("1.2") });
    expect(saver.snapshot().stale).toBeNull();
  });

  it("drops what was typed when the maker takes theirs", async () => {
    saver.edit(typed("1.1"));
    await settled();
    await server.fails(stale(7, typed("9")));
    saver.takeTheirs(piece(7, typed("9")));
    expect(saver.snapshot()).toMatchObject({ stale: null, brief: typed("9") });
    expect(drawer.kept).toBeNull();
  });

  it("undoes after whatever is on its way, from the version that it made", async () => {
    saver.edit(typed("1.1"));
    await settled();
    void saver.move("undo");
    await settled();
    expect(server.calls).toHaveLength(1);
    await server.answer(piece(2, typed("1.1")));
    expect(server.calls[1]).toEqual({ version: 2, way: "undo" });
    await server.answer(piece(3, typed("1")));
    expect(saver.snapshot().brief).toEqual(typed("1"));
  });

  it("takes a piece from elsewhere only while nothing is typed", () => {
    saver.take(piece(5, typed("5")));
    expect(saver.snapshot()).toMatchObject({ brief: typed("5"), piece: { version: 5 } });
    saver.edit(typed("5.5"));
    saver.take(piece(6, typed("6")));
    expect(saver.snapshot()).toMatchObject({ brief: typed("5.5"), piece: { version: 6 } });
  });

  it("tells those who listen, until they stop", async () => {
    const heard = vi.fn();
    const stop = saver.subscribe(heard);
    saver.edit(typed("1.1"));
    expect(heard).toHaveBeenCalled();
    stop();
    const before = heard.mock.calls.length;
    saver.edit(typed("1.2"));
    await settled();
    expect(heard.mock.calls).toHaveLength(before);
  });
});

describe("after a reload", () => {
  const start = (kept: Kept | null, version: number, brief: Brief) => {
    const drawer = new Drawer();
    drawer.kept = kept;
    const server = new Server();
    const saver = new Saver(piece(version, brief), server, drawer);
    saver.resume();
    return { drawer, server, saver };
  };

  it("sends what never arrived", async () => {
    const { server } = start({ version: 4, brief: typed("2") }, 4, typed("1"));
    await settled();
    expect(server.calls).toEqual([{ version: 4, brief: typed("2") }]);
  });

  it("knows its own save by what was sent, though the version is newer", async () => {
    const kept = { version: 4, brief: typed("3"), sent: typed("2") };
    const { server, saver } = start(kept, 5, typed("2"));
    await settled();
    expect(saver.snapshot().stale).toBeNull();
    expect(server.calls).toEqual([{ version: 5, brief: typed("3") }]);
  });

  it("asks when somebody else has written meanwhile", async () => {
    const { server, saver } = start({ version: 4, brief: typed("3") }, 6, typed("8"));
    await settled();
    expect(server.calls).toEqual([]);
    expect(saver.snapshot().brief).toEqual(typed("3"));
    expect(saver.snapshot().stale).toMatchObject({ version: 6, brief: typed("8") });
  });

  it("clears a shelf that holds nothing new", () => {
    const { drawer, saver } = start({ version: 3, brief: typed("1") }, 4, typed("1"));
    expect(drawer.kept).toBeNull();
    expect(saver.snapshot().stale).toBeNull();
  });
});
