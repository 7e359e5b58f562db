import {
  DndContext,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { useCallback, useId, useMemo } from "react";
import { useTranslation } from "react-i18next";
import type { Sheet } from "../../api/client";
import { copies, eachPlaced, flipped, shapesOf, type Placed } from "../../shared/drawings/frame";
import { Shape } from "../../shared/drawings/Shape";
import { useSize } from "../../shared/useSize";
import { useUnit } from "../../shared/useUnit";
import { lengthText } from "../../shared/length";

interface Props {
  sheet: Sheet;
  colour: string;
  /** It is the drawing from before something was typed that can't be planned. */
  faded: boolean;
  /** Where the front centre lies, mm. */
  centre: number | null;
  /** The name of the entry that is picked out. */
  selected: string | undefined;
  onSelect: (entry: string) => void;
  /** A part was dragged to the place of another, both by their entries' names. By the keys it is
   * moved in the list below. */
  onDrag: (from: string, to: string) => void;
}

// So far a mouse moves, px, and so long a finger rests, ms, before a part is dragged: else it is
// picked, or the page scrolled.
const PRESS_PX = 5;
const REST_MS = 200;

const EDGE = 16;
const MOST_HIGH = 236;
const MOST_ROWS = 4;
// From this scale on a wire is seen as a wire, px a mm.
const SEEN_PX = 3.2;

// Only a pointer drags here: the list below tells a screen reader, and takes the keys.
const SAYS_NOTHING = () => undefined;
const SILENT = {
  announcements: {
    onDragStart: SAYS_NOTHING,
    onDragOver: SAYS_NOTHING,
    onDragEnd: SAYS_NOTHING,
    onDragCancel: SAYS_NOTHING,
  },
  screenReaderInstructions: { draggable: "" },
};

/** The piece as it will lie, true to proportion, read like lines of text. */
export function SequenceStrip({ sheet, colour, faded, centre, selected, onSelect, onDrag }: Props) {
  const { t } = useTranslation();
  const { ref, width } = useSize<HTMLDivElement>();
  const id = useId();
  const unit = useUnit();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: PRESS_PX } }),
    useSensor(TouchSensor, { activationConstraint: { delay: REST_MS, tolerance: PRESS_PX } }),
  );
  const laid = useMemo(() => layOut(sheet, width - 2 * EDGE), [sheet, width]);
  return (
    <div ref={ref} className="overflow-hidden border hairline bg-panel">
      {width > 0 && laid && (
        <DndContext
          sensors={sensors}
          accessibility={SILENT}
          collisionDetection={pointerWithin}
          onDragEnd={({ active, over }) => {
            const [from, to] = [entryOf(active.id), entryOf(over?.id ?? "")];
            if (from !== to && to !== "") onDrag(from, to);
          }}
        >
          <svg
            width={width}
            height={laid.height}
            opacity={faded ? 0.3 : 1}
            role="group"
            aria-label={t("sequence.strip", { length: `${lengthText(laid.length, unit)} ${unit}` })}
            data-drawn="sequence"
          >
            <defs>
              {Object.entries(shapesOf(sheet)).map(([name, strokes]) => (
                <g key={name} id={`${id}${name}`}>
                  <Shape strokes={strokes} colour={colour} scale={laid.scale} />
                </g>
              ))}
            </defs>
            {laid.rows.map((row, i) => (
              <line
                key={i}
                x1={EDGE}
                x2={EDGE + (row.to - row.from) * laid.scale}
                y1={row.y}
                y2={row.y}
                stroke="var(--color-hair)"
              />
            ))}
            {runsOf(laid.placed).map((run, n) => (
              <Run
                key={n}
                id={`${run[0]?.one.entry ?? ""}#${n}`}
                run={run}
                laid={laid}
                shapes={id}
                chosen={run[0]?.one.entry !== "" && run[0]?.one.entry === selected}
                onSelect={() => onSelect(run[0]?.one.entry ?? "")}
              />
            ))}
            {centre !== null && <CentreMark laid={laid} middle={centre} />}
          </svg>
        </DndContext>
      )}
    </div>
  );
}

function entryOf(id: string | number): string {
  return `${id}`.split("#")[0] ?? "";
}

interface RunProps {
  id: string;
  run: Laid["placed"];
  laid: Laid;
  /** What goes before the names of the shapes. */
  shapes: string;
  chosen: boolean;
  onSelect: () => void;
}

/** Neighbours of one entry: picked by a press, and dragged to the place of another entry. */
function Run({ id, run, laid, shapes, chosen, onSelect }: RunProps) {
  const disabled = entryOf(id) === "";
  const { setNodeRef: lift, listeners, isDragging } = useDraggable({ id, disabled });
  const { setNodeRef: land, isOver } = useDroppable({ id, disabled });
  // A group of a drawing stands where both look for an element of the page.
  const ref = useCallback(
    (group: SVGGElement | null) => {
      lift(group as unknown as HTMLElement | null);
      land(group as unknown as HTMLElement | null);
    },
    [lift, land],
  );
  return (
    // The list below does the same for the keys.
    <g
      ref={ref}
      {...listeners}
      className="cursor-pointer"
      opacity={isDragging ? 0.5 : 1}
      onClick={onSelect}
    >
      {run.map(({ one, x, y, order }) => (
        <g key={order}>
          <rect
            x={EDGE + x - 1}
            y={y - laid.half}
            width={Math.max((one.length_mm ?? 0) * laid.scale, 10) + 2}
            height={2 * laid.half}
            fill={chosen || isOver ? "var(--color-tint)" : "transparent"}
          />
          <g transform={`translate(${EDGE + x} ${y}) scale(${laid.scale})${flipped(one)}`}>
            <use href={`#${shapes}${one.shape}`} />
          </g>
        </g>
      ))}
    </g>
  );
}

/** What is laid out, neighbours of one entry together. */
function runsOf(placed: Laid["placed"]): Laid["placed"][] {
  const runs: Laid["placed"][] = [];
  for (const each of placed) {
    const last = runs.at(-1);
    if (last && last[0]?.one.entry === each.one.entry) last.push(each);
    else runs.push([each]);
  }
  return runs;
}

function CentreMark({ laid, middle }: { laid: Laid; middle: number }) {
  const row = laid.rows.find((one) => one.from <= middle && middle <= one.to);
  if (!row) return null;
  const x = EDGE + (middle - row.from) * laid.scale;
  return (
    <g stroke="var(--color-accent)" strokeWidth={1.5}>
      <line x1={x} x2={x} y1={row.y - laid.half} y2={row.y - laid.half + 9} />
      <line x1={x} x2={x} y1={row.y + laid.half - 9} y2={row.y + laid.half} />
    </g>
  );
}

interface Laid {
  scale: number;
  length: number;
  half: number;
  height: number;
  rows: { from: number; to: number; y: number }[];
  placed: { one: Placed; x: number; y: number; order: number }[];
}

/** Rows of a sequence: as few as let the parts be seen, broken between parts. */
function layOut(sheet: Sheet, room: number): Laid | null {
  const placed = eachPlaced(sheet.placed ?? []);
  if (placed.length === 0 || room < 60) return null;
  const end = (one: Placed) => one.at[0] + (one.length_mm ?? 0);
  const length = Math.max(...placed.map(end));
  const ys = Object.values(shapesOf(sheet)).flatMap((strokes) =>
    strokes.flatMap((s) =>
      copies(s)
        .flat()
        .map(([, y]) => Math.abs(y) + (s.width_mm ?? 0) / 2),
    ),
  );
  const reach = Math.max(...ys, 1);
  const fits = (rows: number) => {
    const scale = Math.min((room * rows) / (length * 1.03), (MOST_HIGH / rows - 14) / (2 * reach));
    return { rows, scale: Math.min(scale, 9) };
  };
  const options = Array.from({ length: MOST_ROWS }, (_, i) => fits(i + 1));
  const { rows: count, scale } =
    options.find((one) => one.scale >= SEEN_PX) ??
    options.reduce((best, one) => (one.scale > best.scale * 1.15 ? one : best));
  const half = Math.max(reach * scale + 7, 24);
  const lineLength = Math.max(room / scale, length / count);
  const rows: Laid["rows"] = [{ from: 0, to: 0, y: half }];
  const order = placed.map((one, i) => ({ one, i })).sort((a, b) => start(a.one) - start(b.one));
  const found: Laid["placed"] = [];
  for (const { one, i } of order) {
    let row = rows.at(-1)!;
    if (end(one) - row.from > lineLength + 1e-6 && start(one) > row.from) {
      row = { from: start(one), to: start(one), y: row.y + 2 * half };
      rows.push(row);
    }
    row.to = Math.max(row.to, end(one));
    found.push({ one, x: (start(one) - row.from) * scale, y: row.y, order: i });
  }
  return {
    scale,
    length,
    half,
    height: (rows.at(-1)?.y ?? half) + half,
    rows,
    placed: found.sort((a, b) => a.order - b.order),
  };
}

function start(one: Placed): number {
  return one.at[0];
}
