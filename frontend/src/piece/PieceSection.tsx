import "../locales/work";
import { useQuery } from "@tanstack/react-query";
import { Redo2, Undo2 } from "lucide-react";
import { useMemo, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, Navigate, useNavigate, useParams } from "react-router";
import { api, ApiError, ask, STATIONS, type Piece, type Station } from "../api/client";
import { queries } from "../api/queries";
import { TheRule } from "../shared/drawings/TheRule";
import { BeforeContext } from "./useBefore";
import { useKeys } from "../shared/useKeys";
import { usePiece } from "./usePiece";
import { useUnit } from "../shared/useUnit";
import { PointedContext } from "./usePointed";
import type { SaverState, Saver } from "./saver";
import { CutStation } from "./CutStation";
import { FitStation } from "./FitStation";
import { FormStation } from "./FormStation";
import { MakeUpStation } from "./MakeUpStation";
import { MeasureStation } from "../measures/MeasureStation";
import type { StationProps } from "./context";
import { Button, buttonLook } from "../shared/Button";
import { Ledger } from "../shared/Ledger";
import { PieceCard } from "../bench/PieceCard";
import { StalePanel } from "./StalePanel";
import { StationBar } from "./StationBar";
import { addWords } from "../i18n";
import words from "../locales/en-piece.json";

addWords(words);

const SCREENS: Record<Station, (props: StationProps) => React.ReactNode> = {
  measure: MeasureStation,
  make_up: MakeUpStation,
  cut: CutStation,
  form: FormStation,
  fit: FitStation,
};

/** A piece at one of its stations, with the Rule and the ledger always there. */
export function PieceSection() {
  const { id, station } = useParams();
  if (!STATIONS.includes(station as Station)) return <Navigate to={`/pieces/${id}/measure`} />;
  return <PieceById key={id} id={Number(id)} station={station as Station} />;
}

function PieceById({ id, station }: { id: number; station: Station }) {
  const { t } = useTranslation();
  const { saver, state, edit, take, error } = usePiece(id);
  const facts = useQuery(queries.facts()).data;
  const shop = useQuery(queries.shop()).data;
  if (error) return <p className="p-8">{isMissing(error) ? t("piece.missing") : error.message}</p>;
  if (!saver || !state || !facts || !shop) return <p className="p-8 text-muted">{t("loading")}</p>;
  return (
    <PieceBench
      {...{ saver, state, station }}
      props={{
        piece: state.piece,
        brief: state.brief,
        plan: state.piece.plan ?? state.piece.before,
        problems: state.piece.problems,
        facts,
        shop,
        edit,
        take,
      }}
    />
  );
}

const isMissing = (error: Error) => error instanceof ApiError && error.status === 404;

interface BenchProps {
  saver: Saver;
  state: SaverState;
  station: Station;
  props: StationProps;
}

function PieceBench({ saver, state, station, props }: BenchProps) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const [lines, point] = useState<readonly string[]>([]);
  const { piece } = state;
  const base = `/pieces/${piece.id}`;
  const keys = useMemo(
    () => ({
      ...Object.fromEntries(
        STATIONS.map((one, i) => [String(i + 1), () => void navigate(`${base}/${one}`)]),
      ),
      "ctrl+z": () => void saver.move("undo"),
      "ctrl+shift+z": () => void saver.move("redo"),
      u: () => void saver.move("undo"),
      r: () => void saver.move("redo"),
    }),
    [saver, navigate, base],
  );
  useKeys(keys);
  const takeTheirs = async () => {
    saver.takeTheirs(
      await ask(api.GET("/api/pieces/{piece_id}", { params: { path: { piece_id: piece.id } } })),
    );
  };
  const Screen = SCREENS[station];
  const before = !piece.plan && piece.before !== null;
  return (
    <BeforeContext value={before}>
      <PointedContext value={{ lines, point }}>
        <title>{`${piece.name} · Jam Reel`}</title>
        <header className="flex flex-wrap items-center gap-x-4 gap-y-1 px-6 py-2 laptop:flex-nowrap">
          <PieceCard piece={piece} take={props.take} />
          <SavedNote state={state} />
          <Button
            disabled={!piece.can_undo}
            onClick={() => void saver.move("undo")}
            aria-keyshortcuts="Control+Z U"
          >
            <Undo2 size={18} aria-hidden="true" />
            {t("piece.undo")}
          </Button>
          <Button
            disabled={!piece.can_redo}
            onClick={() => void saver.move("redo")}
            aria-label={t("piece.redo")}
            aria-keyshortcuts="Control+Shift+Z R"
          >
            <Redo2 size={18} aria-hidden="true" />
          </Button>
          <StripLinks piece={piece} />
        </header>
        <TheRule plan={props.plan} faded={!piece.plan} />
        <StationBar piece={piece} plan={props.plan} station={station} />
        {before && <FromBefore piece={piece} />}
        <Unsaved state={state} />
        {!piece.readable && <Unreadable piece={piece} saver={saver} />}
        {state.stale && (
          <StalePanel
            stale={state.stale}
            mine={state.brief}
            onMine={() => saver.keepMine()}
            onTheirs={() => void takeTheirs()}
          />
        )}
        <div className="grid grid-cols-1 wide:grid-cols-[1fr_330px]">
          <div
            data-before={before ? "" : undefined}
            className="station grid grid-cols-1 gap-6 px-6 py-4 tablet:grid-cols-[minmax(350px,4fr)_minmax(0,4.4fr)]"
          >
            <Screen {...props} />
          </div>
          <aside
            aria-label={t("ledger.name")}
            className="border-t hairline bg-panel px-5 py-4 wide:min-h-[calc(100vh-268px)] wide:border-t-0 wide:border-l"
          >
            <Ledger plan={props.plan} />
          </aside>
        </div>
      </PointedContext>
    </BeforeContext>
  );
}

/** What is typed gives no plan: what to mend, and what is still shown meanwhile. */
function FromBefore({ piece }: { piece: Piece }) {
  const { t } = useTranslation();
  return (
    <div role="status" className="border-b border-ink bg-tint px-6 py-2">
      <p className="font-medium break-words">{piece.problems[0]?.says}</p>
      <p className="text-body text-muted">{t("before.shown")}</p>
    </div>
  );
}

/** A save that was turned away, in the server's words; what is typed stays here. */
function Unsaved({ state }: { state: SaverState }) {
  const { t } = useTranslation();
  if (!state.refused) return null;
  return (
    <p role="alert" className="border-b border-ink bg-tint px-6 py-3 font-medium break-words">
      {t("piece.refused", { says: state.refused })}
    </p>
  );
}

/** A brief of old that holds what can't be read: what that is, and the two ways on. */
function Unreadable({ piece, saver }: { piece: Piece; saver: Saver }) {
  const { t } = useTranslation();
  return (
    <section role="alert" className="border-b border-ink bg-tint px-6 py-4">
      <h2 className="text-lead">{t("unreadable.title")}</h2>
      <ul className="my-2">
        {piece.problems.map((problem) => (
          <li key={problem.field} className="break-words">
            {problem.says}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-2">
        <Button look="strong" onClick={() => saver.saveAsShown()}>
          {t("unreadable.mend")}
        </Button>
        <Button disabled={!piece.can_undo} onClick={() => void saver.move("undo")}>
          {t("unreadable.back")}
        </Button>
        <span className="text-muted">{t("unreadable.what")}</span>
      </div>
    </section>
  );
}

function SavedNote({ state }: { state: SaverState }) {
  const { t } = useTranslation();
  return (
    <span role="status" className="min-w-20 text-right text-small text-muted">
      {t(
        state.stale
          ? "piece.stale"
          : state.refused && !state.offline
            ? "piece.not_saved"
            : state.offline
              ? "piece.offline"
              : state.saving
                ? "piece.saving"
                : "piece.saved",
      )}
    </span>
  );
}

function StripLinks({ piece }: { piece: Piece }) {
  const { t } = useTranslation();
  const unit = useUnit();
  if (!piece.plan) return null;
  const strip = `/api/pieces/${piece.id}/strip.pdf`;
  // Without a word the paper is the bench's own.
  const other = unit === "in" ? "a4" : "letter";
  return (
    <span className="flex shrink-0 whitespace-nowrap">
      {!piece.finished_at && (
        <Link className={`${buttonLook("strong")} mr-2`} to={`/pieces/${piece.id}/bench`}>
          {t("piece.at_bench")}
        </Link>
      )}
      <a
        className={`${buttonLook("plain")} mr-2`}
        href={`/api/pieces/${piece.id}/card.pdf`}
        target="_blank"
        rel="noreferrer"
      >
        {t("piece.making_card")}
      </a>
      <a
        className={`${buttonLook("plain")} rounded-r-none`}
        href={strip}
        target="_blank"
        rel="noreferrer"
      >
        {t("piece.strip")}
      </a>
      <a
        className={`${buttonLook("plain")} rounded-l-none border-l-0`}
        href={`${strip}?paper=${other}`}
        target="_blank"
        rel="noreferrer"
        aria-label={t(`piece.strip_${other}`)}
      >
        {t(`piece.${other}`)}
      </a>
    </span>
  );
}
