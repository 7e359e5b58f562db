import { ApiError, type Brief, type Piece, type Stale } from "../api/client";

/** How a brief reaches the server; handed in, so that this file knows nothing of fetching. */
export interface Transport {
  save(version: number, brief: Brief): Promise<Piece>;
  move(version: number, way: "undo" | "redo"): Promise<Piece>;
}

export interface Kept {
  version: number;
  brief: Brief;
  /** What was on its way when this was written: if it arrived, the newer version is our own. */
  sent?: Brief;
}

/** Where unsaved typing is kept over a reload. */
export interface Shelf {
  read(): Kept | null;
  write(kept: Kept): void;
  clear(): void;
}

export interface SaverState {
  piece: Piece;
  /** The brief as it is being typed. */
  brief: Brief;
  saving: boolean;
  /** The last save did not get through; typing is kept here and tried again. */
  offline: boolean;
  /** What the server says of a save that it turned away; empty where asking again may help. */
  refused: string;
  stale: Stale | null;
}

const RETRY_MS = 2000;
const LONGEST_MS = 20_000;
/** Answers after which asking again as it is can help: none, busy, a fault, a full disk. */
const PASSING = (status: number) => status === 0 || status === 429 || status >= 500;

/**
 * Saves a brief as it is typed, one request at a time: what was typed meanwhile goes with the
 * next one. Without React: `hooks/usePiece` is its adapter.
 */
export class Saver {
  private state: SaverState;
  private listeners = new Set<() => void>();
  private turn: Promise<void> = Promise.resolve();
  private waiting = false;
  private sent: Brief | undefined;
  private failures = 0;
  private retry: ReturnType<typeof setTimeout> | undefined;

  constructor(
    piece: Piece,
    private transport: Transport,
    private shelf: Shelf,
  ) {
    this.state = {
      piece,
      brief: piece.brief,
      saving: false,
      offline: false,
      refused: "",
      stale: null,
    };
  }

  /** Sends what is still here, such as after signing in again. */
  tryAgain(): void {
    if (this.state.offline || this.state.refused) this.flush();
  }

  /** Picks up what was typed before a reload and never reached the server. */
  resume(): void {
    const kept = this.shelf.read();
    if (!kept || same(kept.brief, this.state.piece.brief)) return this.shelf.clear();
    if (kept.version === this.state.piece.version || same(kept.sent, this.state.piece.brief)) {
      this.edit(kept.brief);
      return;
    }
    const { piece } = this.state;
    this.set({ brief: kept.brief, stale: staleOf(piece) });
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): SaverState => this.state;

  edit(brief: Brief): void {
    this.set({ brief, refused: "" });
    this.keep();
    this.flush();
  }

  /** Takes a piece as the server now has it, unless something typed is still on its way. */
  take(piece: Piece): void {
    const idle = same(this.state.brief, this.state.piece.brief);
    this.set({ piece, brief: idle ? piece.brief : this.state.brief });
  }

  /** Undo or redo, after whatever is still on its way. */
  move(way: "undo" | "redo"): Promise<void> {
    return this.inTurn(async () => {
      if (this.state.stale) return;
      await this.send(() => this.transport.move(this.state.piece.version, way), true);
    });
  }

  /** After a stale save: keep what was typed here, on top of what stands there. */
  keepMine(): void {
    const { stale, piece } = this.state;
    if (!stale) return;
    this.set({ stale: null, piece: { ...piece, version: stale.version } });
    this.flush(true);
  }

  /** Saves the brief as it is shown, where what is kept holds what can't be read. */
  saveAsShown(): void {
    this.flush(true);
  }

  /** After a stale save: drop what was typed here and take what stands there. */
  takeTheirs(piece: Piece): void {
    this.shelf.clear();
    this.set({ stale: null, piece, brief: piece.brief });
  }

  /** Saves what is typed, in turn; edits made meanwhile go with it or with the next one. */
  private flush(force = false): void {
    if (this.waiting) return;
    this.waiting = true;
    void this.inTurn(async () => {
      this.waiting = false;
      const { brief, piece, stale } = this.state;
      if (stale) return;
      if (!force && same(brief, piece.brief)) return this.shelf.clear();
      this.sent = brief;
      this.keep();
      await this.send(() => this.transport.save(piece.version, brief), false);
      if (!this.state.offline && !this.state.refused) this.flush();
    });
  }

  private inTurn(work: () => Promise<void>): Promise<void> {
    this.turn = this.turn.then(work);
    return this.turn;
  }

  private keep(): void {
    const { piece, brief } = this.state;
    this.shelf.write({ version: piece.version, brief, sent: this.sent });
  }

  private async send(call: () => Promise<Piece>, replaces: boolean): Promise<void> {
    this.set({ saving: true });
    try {
      const piece = await call();
      this.failures = 0;
      if (replaces) this.shelf.clear();
      // The server may have completed what was sent (names for entries): where nothing was typed
      // meanwhile, that is what stands now.
      const adopts = replaces || this.state.brief === this.sent;
      this.set({
        piece,
        saving: false,
        offline: false,
        refused: "",
        ...(adopts ? { brief: piece.brief } : {}),
      });
    } catch (error) {
      this.failed(error);
    }
  }

  private failed(error: unknown): void {
    if (error instanceof ApiError && error.status === 409) {
      this.set({ saving: false, stale: error.details as Stale });
      return;
    }
    clearTimeout(this.retry);
    const answered = error instanceof ApiError ? error : null;
    // Signed out: the page asks for the password, and sends it then (see `tryAgain`).
    if (answered?.status === 401) return this.set({ saving: false, offline: true });
    if (answered && !PASSING(answered.status))
      return this.set({ saving: false, offline: false, refused: answered.details.detail });
    this.failures += 1;
    // What a full disk or a fault says is worth reading; that it is tried again is said anyhow.
    const says = answered && answered.status >= 500 ? answered.details.detail : "";
    this.set({ saving: false, offline: true, refused: says });
    const wait = Math.min(RETRY_MS * 1.5 ** (this.failures - 1), LONGEST_MS);
    this.retry = setTimeout(() => this.flush(), wait);
  }

  private set(part: Partial<SaverState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}

function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

function staleOf(piece: Piece): Stale {
  return {
    type: "",
    title: "",
    status: 409,
    detail: "",
    version: piece.version,
    brief: piece.brief,
  };
}
