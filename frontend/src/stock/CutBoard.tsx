import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ask, type Board, type BoardCut, type BoardGroup, type Piece } from "../api/client";
import { queries } from "../api/queries";
import { useSize } from "../shared/useSize";
import { useUnit } from "../shared/useUnit";
import { lengthText } from "../shared/length";
import { money } from "../log/log";
import { asksWhether } from "../piece/slips";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Problem, TextField } from "../shared/TextField";

type Lane = BoardGroup["lanes"][number];

interface Props {
  /** Ids of the pieces, with commas; empty for all that wait to be cut. */
  pieces: string;
  /** Changes when anything that the board hangs on has changed. */
  at: number;
  onCut?: (piece: Piece) => void;
  /** Level of its headings on the page. */
  heading?: "h2" | "h3";
}

interface Picked {
  cut: BoardCut;
  lane: Lane;
  last: boolean;
}

/** What is still to be cut, laid out on the rack to scale; a press cuts, a spoiled one re-plans. */
export function CutBoard({ pieces, at, onCut, heading = "h3" }: Props) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const { data: board } = useQuery(queries.board(pieces, at));
  const [picked, setPicked] = useState<Picked | null>(null);
  const again = () => {
    void client.invalidateQueries({ queryKey: ["board"] });
    void client.invalidateQueries({ queryKey: ["rack"] });
    void client.invalidateQueries({ queryKey: ["bench"] });
    setPicked(null);
  };
  // What was cut here last, to be undone on the spot.
  const [last, setLast] = useState<BoardCut | null>(null);
  const undo = useMutation({
    mutationFn: (one: BoardCut) =>
      ask(
        api.POST("/api/pieces/{piece_id}/ticks", {
          params: { path: { piece_id: one.piece_id } },
          body: { kind: "cut", key: one.key, ticked: false },
        }),
      ),
    onSuccess: (piece) => {
      setLast(null);
      onCut?.(piece);
      again();
    },
  });
  const cut = useMutation({
    meta: { shown: true },
    mutationFn: ({ picked: one, actual, sure }: Cutting) =>
      ask(
        api.POST("/api/pieces/{piece_id}/ticks", {
          params: { path: { piece_id: one.cut.piece_id } },
          body: {
            kind: "cut",
            key: one.cut.key,
            actual,
            sure,
            ticked: true,
            stock_id: one.lane.stock_id,
            scrap_rest: one.last && one.lane.scrap_mm > 0,
          },
        }),
      ),
    onSuccess: (piece, { picked: one }) => {
      setLast(one.cut);
      onCut?.(piece);
      again();
    },
    // What is asked about stays open, with what was typed.
    onError: (error) => asksWhether(error) || again(),
  });
  const spoil = useMutation({
    meta: { shown: true },
    mutationFn: ({ picked: one, amount }: { picked: Picked; amount: string }) =>
      ask(
        api.POST("/api/stock/{stock_id}/spoil", {
          params: { path: { stock_id: one.lane.stock_id ?? 0 } },
          body: { amount, note: t("board.spoiled_note", { what: one.cut.label }) },
        }),
      ),
    onSuccess: again,
  });
  if (!board) return <p className="text-muted">{t("loading")}</p>;
  const undone = last && (
    <p role="status" className="flex flex-wrap items-center gap-3 border-l-4 border-ink pl-3">
      {t("board.cut_done", { what: last.label })}
      <Button disabled={undo.isPending} onClick={() => undo.mutate(last)}>
        {t("archive.undo")}
      </Button>
    </p>
  );
  if (board.groups.length === 0)
    return (
      <div className="space-y-3">
        {undone}
        <p className="text-muted">{t("board.nothing")}</p>
      </div>
    );
  const question = asksWhether(cut.error);
  return (
    <div className="space-y-5" data-drawn="board">
      {undone}
      <Problem says={question ? undefined : (cut.error?.message ?? spoil.error?.message)} />
      {board.groups.map((group) => (
        <GroupOnBoard
          key={group.label}
          group={group}
          currency={board.currency}
          many={board.pieces.length > 1}
          heading={heading}
          picked={picked}
          question={question}
          onPick={(next) => {
            cut.reset();
            setPicked(next);
          }}
          onCut={(actual, sure) => picked && cut.mutate({ picked, actual, sure })}
          onSpoil={(amount) => picked && spoil.mutate({ picked, amount })}
        />
      ))}
    </div>
  );
}

interface GroupProps {
  group: BoardGroup;
  currency: string;
  many: boolean;
  heading: "h2" | "h3";
  picked: Picked | null;
  onPick: (picked: Picked | null) => void;
  /** What is asked about the length that was typed. */
  question: string | undefined;
  onCut: (actual: string, sure: boolean) => void;
  onSpoil: (amount: string) => void;
}

interface Cutting {
  picked: Picked;
  actual: string;
  sure: boolean;
}

function GroupOnBoard(props: GroupProps) {
  const {
    group,
    currency,
    many,
    heading: Heading,
    picked,
    question,
    onPick,
    onCut,
    onSpoil,
  } = props;
  const { t } = useTranslation();
  const { ref, width } = useSize<HTMLDivElement>();
  const longest = Math.max(...group.lanes.map((lane) => shownLength(lane)), 1);
  return (
    <section ref={ref} aria-label={group.label}>
      <Heading className="flex flex-wrap items-baseline gap-x-4 border-b border-ink pb-0.5 text-lead">
        {group.label}
        <GroupFacts group={group} currency={currency} />
      </Heading>
      {group.lanes.map((lane, i) => (
        <LaneOnBoard
          key={`${lane.stock_id}-${i}`}
          lane={lane}
          group={group}
          scale={(width - 20) / longest}
          many={many}
          picked={picked}
          question={question}
          onPick={onPick}
          onCut={onCut}
          onSpoil={onSpoil}
        />
      ))}
      {group.unplaced.length > 0 && (
        <p className="mt-1 border-l-4 border-ink pl-3 font-semibold">
          {t("board.unplaced", { count: group.unplaced.length })}
        </p>
      )}
    </section>
  );
}

/** How good the plan is: proven or how far from proven, scrap, and what the hand would waste. */
function GroupFacts({ group, currency }: { group: BoardGroup; currency: string }) {
  const { t } = useTranslation();
  const unit = useUnit();
  const told = [
    group.optimal
      ? t("board.proven")
      : t("board.gap", { percent: Math.max(100 * group.gap, 0.01).toFixed(2) }),
    t("board.scrap", { length: `${lengthText(group.scrap_mm, unit)} ${unit}` }),
    (group.saved_lengths > 0 || group.saved_mm > 0.5) &&
      t(group.saved_lengths > 0 ? "board.saves_buying" : "board.saved", {
        count: group.saved_lengths,
        length: `${lengthText(group.saved_mm, unit)} ${unit}`,
        money: group.saved == null ? "" : ` (${money(group.saved, currency)})`,
      }),
    group.cost == null
      ? t("board.no_price")
      : t("board.cost", { cost: money(group.cost, currency) }),
    t("board.mass", { grams: group.mass_g.toFixed(1) }),
  ];
  return (
    <span className="text-small font-normal text-muted">{told.filter(Boolean).join(" · ")}</span>
  );
}

// A reel is drawn a hand longer than what comes off it.
const REEL_REST_MM = 60;

function shownLength(lane: Lane): number {
  const used = lane.length_mm - lane.left_mm;
  return lane.kind === "reel" ? used + Math.min(lane.left_mm, REEL_REST_MM) : lane.length_mm;
}

type LaneProps = Omit<GroupProps, "group" | "heading" | "currency"> & {
  lane: Lane;
  group: BoardGroup;
  scale: number;
};

function LaneOnBoard(props: LaneProps) {
  const { lane, group, scale, many, picked, question, onPick, onCut, onSpoil } = props;
  const { t } = useTranslation();
  const unit = useUnit();
  const used = lane.length_mm - lane.left_mm;
  const starts: number[] = [];
  lane.cuts.reduce((at, cut, i) => ((starts[i] = at), at + cut.length_mm), 0);
  const mine = picked && lane.cuts.find((cut) => sameCut(cut, picked.cut));
  return (
    <div className="mt-2">
      <div className="flex flex-wrap items-baseline gap-x-3 text-body">
        <span className="font-semibold">{lane.name}</span>
        <span className="text-muted">
          {lane.kind !== "buy" && t(`stock_kind.${lane.kind}`)} <Figure mm={lane.length_mm} unit />
          {" · "}
          {lane.scrap_mm > 0 ? (
            <>
              {t("board.leaves_scrap")} <Figure mm={lane.scrap_mm} unit />
            </>
          ) : (
            <>
              {t("board.leaves")} <Figure mm={lane.left_mm} unit />
            </>
          )}
        </span>
      </div>
      <div className="relative mt-0.5 h-[46px] overflow-hidden">
        <svg width="100%" height={46} aria-hidden="true">
          <rect
            x={used * scale}
            y={19}
            width={Math.max(0, (shownLength(lane) - used) * scale)}
            height={8}
            fill={group.colour}
            fillOpacity={0.3}
          />
        </svg>
        {lane.cuts.map((cut, i) => (
          <button
            key={`${cut.piece_id}/${cut.key}`}
            type="button"
            style={{
              left: (starts[i] ?? 0) * scale,
              width: Math.max(cut.length_mm * scale - 2, 6),
            }}
            aria-pressed={mine === cut}
            aria-label={t("board.one_cut", {
              what: many ? `${cut.piece}, ${cut.label}` : cut.label,
              length: `${lengthText(cut.length_mm, unit)} ${unit}`,
            })}
            className="figures absolute top-0 flex h-[44px] flex-col items-center justify-center overflow-hidden border border-ink bg-panel text-note leading-tight hover:bg-tint aria-pressed:bg-ink aria-pressed:text-on-ink"
            onClick={() =>
              onPick(mine === cut ? null : { cut, lane, last: lane.cuts.length === 1 })
            }
          >
            {cut.length_mm * scale > 38 && lengthText(cut.length_mm, unit)}
            <Marks cut={cut} scale={scale} />
          </button>
        ))}
      </div>
      {mine && picked && (
        <CutForm picked={picked} many={many} question={question} onCut={onCut} onSpoil={onSpoil} />
      )}
    </div>
  );
}

// Nearer together than this, marks are only a smudge [px].
const CLOSE_PX = 5;

/** Where a wire is marked, as ticks on its lower edge; none where they would run together. */
function Marks({ cut, scale }: { cut: BoardCut; scale: number }) {
  const places = cut.marks.slice(1, -1).map((mark) => mark.at_mm * scale);
  const apart = places.every((at, i) => i === 0 || at - (places[i - 1] ?? 0) >= CLOSE_PX);
  if (!apart) return null;
  return places.map((at) => (
    <span
      key={at}
      aria-hidden="true"
      className="absolute bottom-0 h-2.5 w-px bg-current"
      style={{ left: at }}
    />
  ));
}

function sameCut(a: BoardCut, b: BoardCut): boolean {
  return a.piece_id === b.piece_id && a.key === b.key;
}

interface FormProps {
  picked: Picked;
  many: boolean;
  question: string | undefined;
  onCut: (actual: string, sure: boolean) => void;
  onSpoil: (amount: string) => void;
}

/** The wire that was pressed: cut as planned, cut otherwise, or spoiled. */
function CutForm({ picked, many, question, onCut, onSpoil }: FormProps) {
  const { t } = useTranslation();
  const unit = useUnit();
  const [actual, setActual] = useState("");
  const { cut, lane } = picked;
  const inner = cut.marks.slice(1, -1).map((mark) => lengthText(mark.at_mm, unit, 1, "fractions"));
  return (
    <form
      className="mt-1 flex flex-wrap items-end gap-3 border-l-4 border-ink bg-panel px-3 py-2"
      onSubmit={(event) => {
        event.preventDefault();
        onCut(actual, false);
      }}
    >
      <p className="mr-2 grow basis-60 leading-snug">
        <span className="block font-semibold">
          {many && `${cut.piece}: `}
          {cut.label} <Figure mm={cut.length_mm} unit className="text-head" />
        </span>
        <span className="text-small text-muted">
          {cut.off_reel ? t("board.off_reel") : t("board.marks", { marks: inner.join(", ") })}
        </span>
      </p>
      <TextField
        label={t("cut.actual")}
        className="w-56"
        placeholder={t("cut.as_planned")}
        inputMode="decimal"
        value={actual}
        problem={question}
        onText={setActual}
      />
      {question && (
        <Button onClick={() => onCut(actual, true)}>{t("board.sure", { actual })}</Button>
      )}
      <Button type="submit" look="strong">
        {t("board.is_cut")}
      </Button>
      <Button
        disabled={lane.stock_id == null}
        onClick={() => onSpoil(actual || `${cut.length_mm.toFixed(2)} mm`)}
      >
        {t("board.spoiled")}
      </Button>
    </form>
  );
}

/** Totals of a board, for the one answer on top. */
export function totals(board: Board | undefined) {
  const groups = board?.groups ?? [];
  const sum = (of: (group: BoardGroup) => number) => groups.reduce((all, one) => all + of(one), 0);
  return {
    cuts: sum((g) => g.lanes.reduce((n, lane) => n + lane.cuts.length, 0)),
    wire: sum((g) => g.lanes.reduce((n, lane) => n + lane.length_mm - lane.left_mm, 0)),
    scrap: sum((g) => g.scrap_mm),
    scrapG: sum((g) => g.scrap_g),
    mass: sum((g) => g.mass_g),
    cost: sum((g) => g.cost ?? 0),
    buy: groups.filter((g) => g.buy_count > 0),
  };
}
