import { useTranslation } from "react-i18next";
import type { Facts, Sheet, Unit } from "../../api/client";
import { shapesOf, type Stroke } from "../../shared/drawings/frame";
import { PartPicture } from "../../shared/drawings/PartPicture";
import {
  changed,
  duplicated,
  entryAt,
  grouped,
  listed,
  moved,
  samePath,
  ungrouped,
  without,
  type Entry,
  type Part,
  type Path,
} from "../sequence";
import { useUnit } from "../../shared/useUnit";
import { asText } from "../draft";
import { typedLength } from "../../shared/length";
import { Button } from "../../shared/Button";
import { MovableRows, useMovable, type MovableRow } from "../../shared/MovableRows";

interface Props {
  entries: readonly Entry[];
  parts: Facts["parts"];
  sheet: Sheet | undefined;
  colour: string;
  /** The unit that a bare number is read in. */
  unit: Unit;
  /** Whether what is listed lies on both sides of a middle. */
  mirrored: boolean;
  selected: Path | null;
  onSelect: (path: Path | null) => void;
  onChange: (entries: Entry[]) => void;
}

/** The sequence entry by entry; everything that the buttons do, keys do too. */
export function EntryList(props: Props) {
  const { entries, parts, sheet, colour, unit, mirrored, selected, onSelect, onChange } = props;
  const { t } = useTranslation();
  const rows = listed(entries);
  const sorted = rows.map(([entry, path]) => ({
    id: rowId(entry, path),
    name: nameOf(entry, parts) ?? t(entry.evenly ? "sequence.evenly" : "sequence.group"),
    among: path.slice(0, -1).join("."),
  }));
  const drop = (from: string, to: string) => {
    const [start, end] = [from, to].map(
      (id) => rows.find(([entry, path]) => rowId(entry, path) === id)?.[1],
    );
    if (!start || !end) return;
    const [next, path] = moved(entries, start, (end.at(-1) ?? 0) - (start.at(-1) ?? 0));
    onChange(next);
    onSelect(path);
  };
  const step = (by: number) => {
    const at = rows.findIndex(([, path]) => samePath(path, selected));
    const next = rows[Math.min(Math.max(at + by, 0), rows.length - 1)];
    if (next) onSelect(next[1]);
  };
  const keys = (event: React.KeyboardEvent) => {
    if (!selected || (event.target as HTMLElement).matches("input, select, [data-grip]")) return;
    const entry = entryAt(entries, selected);
    const times = entry?.times ?? 1;
    const shift = (by: number) => {
      const [next, path] = moved(entries, selected, by);
      onChange(next);
      onSelect(path);
    };
    const acts: Record<string, () => void> = {
      ArrowDown: () => (event.altKey ? shift(1) : step(1)),
      ArrowUp: () => (event.altKey ? shift(-1) : step(-1)),
      "+": () => onChange(changed(entries, selected, { times: times + 1 })),
      "-": () => onChange(changed(entries, selected, { times: Math.max(0, times - 1) })),
      d: () => onChange(duplicated(entries, selected)),
      g: () => onChange(entry?.group ? ungrouped(entries, selected) : grouped(entries, selected)),
      Delete: () => {
        onChange(without(entries, selected));
        onSelect(null);
      },
    };
    const act = acts[event.key];
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  return (
    <div>
      <MovableRows rows={sorted} onDrop={drop}>
        {/* The list takes the keys of whichever row has the focus. */}
        {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions */}
        <ol aria-label={t("sequence.entries")} onKeyDown={keys} className="border-t hairline">
          {rows.map(([entry, path], i) => (
            <EntryRow
              key={rowId(entry, path)}
              row={sorted[i]!}
              entry={entry}
              path={path}
              parts={parts}
              strokes={drawn(sheet, entry)}
              colour={colour}
              unit={unit}
              mirrored={mirrored && path.length === 1}
              chosen={samePath(path, selected)}
              onSelect={() => onSelect(path)}
              onTimes={(times) => onChange(changed(entries, path, { times }))}
            />
          ))}
        </ol>
      </MovableRows>
      <p className="mt-1 text-note leading-snug text-muted">{t("sequence.keys")}</p>
    </div>
  );
}

/** The name that a row goes by while it is on the screen. */
function rowId(entry: Entry, path: Path): string {
  return entry.id ?? path.join(".");
}

/** What an entry's part is called, by its maker or on the shelf; nothing for a group. */
function nameOf({ part }: Entry, parts: Facts["parts"]): string | undefined {
  return part
    ? asText(part.name) || (parts.find(({ kind }) => kind === part.kind)?.says ?? part.kind)
    : undefined;
}

/** An entry's part as the plan draws it, in its own size and colour. */
function drawn(sheet: Sheet | undefined, entry: Entry): readonly Stroke[] | undefined {
  const one = sheet?.placed?.find((placed) => placed.entry === entry.id);
  return one && sheet && shapesOf(sheet)[one.shape];
}

/** What tells one bead or stem from another: its sizes as typed. */
function sizes(part: Part | null | undefined, unit: Unit, shown: Unit): string {
  const told = ["bead", "stem", "core", "pin", "length"].map((name) => part?.[name]);
  const first = told.find((value) => value != null && value !== "");
  const links = part?.links ?? part?.strands ?? part?.turns;
  const counted = links != null ? `× ${asText(links)}` : "";
  const size = typedLength(first, unit);
  return [size && unit !== shown && !/[a-z]/.test(size) ? `${size} ${unit}` : size, counted]
    .filter(Boolean)
    .join(" ");
}

interface RowProps {
  row: MovableRow;
  entry: Entry;
  path: Path;
  parts: Facts["parts"];
  strokes: readonly Stroke[] | undefined;
  colour: string;
  unit: Unit;
  mirrored: boolean;
  chosen: boolean;
  onSelect: () => void;
  onTimes: (times: number) => void;
}

function EntryRow(props: RowProps) {
  const { row, entry, path, parts, strokes, colour, unit, mirrored } = props;
  const { chosen, onSelect, onTimes } = props;
  const { t } = useTranslation();
  const shown = useUnit();
  const shelf = parts.find((part) => part.kind === entry.part?.kind);
  const times = entry.times ?? 1;
  const { name } = row;
  const { place, style, lifted, grip } = useMovable(row);
  return (
    <li
      ref={place}
      style={style}
      data-depth={path.length}
      className={`flex items-center border-b hairline data-[depth="2"]:pl-6 data-[depth="3"]:pl-12 ${chosen || lifted ? "bg-tint" : ""}`}
    >
      {grip}
      <button
        type="button"
        aria-pressed={chosen}
        className="flex min-h-[44px] min-w-0 grow items-center gap-2 text-left"
        onClick={onSelect}
      >
        {shelf ? (
          <PartPicture strokes={strokes ?? shelf.strokes} colour={colour} width={52} height={34} />
        ) : (
          <span className="w-[52px] text-center text-lead text-muted">( )</span>
        )}
        <span className="min-w-0 leading-tight">
          {name}{" "}
          <span className="figures text-body text-muted">{sizes(entry.part, unit, shown)}</span>
          {mirrored && times > 0 && (
            <span className="block text-note text-muted">
              {t("sequence.both_sides", { count: times, all: 2 * times })}
            </span>
          )}
          {entry.fill && <span className="block text-note text-muted">{t("sequence.fills")}</span>}
        </span>
      </button>
      <Button
        className="!min-w-[44px] !px-0 text-lead"
        look="quiet"
        aria-label={t("sequence.less", { name })}
        onClick={() => onTimes(Math.max(0, times - 1))}
      >
        −
      </Button>
      <span className="figures w-9 text-center text-lead font-semibold">{times}</span>
      <Button
        className="!min-w-[44px] !px-0 text-lead"
        look="quiet"
        aria-label={t("sequence.more", { name })}
        onClick={() => onTimes(times + 1)}
      >
        +
      </Button>
    </li>
  );
}
