import { ChevronUp, X } from "lucide-react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { Day, DayIn } from "../api/client";
import { MovableRows, useMovable } from "../shared/MovableRows";
import { useServerNow } from "../shared/useServerNow";
import { useSize } from "../shared/useSize";
import {
  barText,
  clock,
  dayName,
  daysOf,
  drawn,
  figuresAt,
  goesOf,
  hoursOf,
  moved,
  offsetOf,
  placeOf,
  type Span,
} from "./day";
import { Button } from "../shared/Button";

interface StripProps {
  day: Day & { ahead?: number };
  onChange: (part: Partial<DayIn>) => void;
}

/** The strip of the day: one lane a piece, hands dark, waits tinted, now a line. */
export function Strip({ day, onChange }: StripProps) {
  const { t } = useTranslation();
  const now = useServerNow(day.ahead ?? 0);
  const { ref, width } = useSize<HTMLDivElement>();
  const days = daysOf(day.lanes);
  const here = placeOf(days, now);
  const first = (piece: number, to: number) =>
    onChange({ pieces: moved(day.pieces, piece, to), first: to === 0 ? piece : day.first });
  const wide = Math.max(0, width - 8);
  return (
    <div className="overflow-x-auto" data-testid="strip">
      <div className="grid min-w-[600px] grid-cols-[308px_minmax(0,1fr)]">
        <span />
        <div ref={ref}>
          <Scale days={days} width={wide} lanes={day.lanes} />
        </div>
        <MovableRows
          rows={day.lanes.map(({ piece_id, name }) => ({ id: `${piece_id}`, name }))}
          onDrop={(from, to) =>
            first(
              Number(from),
              day.lanes.findIndex((lane) => `${lane.piece_id}` === to),
            )
          }
        >
          {day.lanes.map((lane) => (
            <Lane
              key={lane.piece_id}
              lane={lane}
              first={day.first === lane.piece_id}
              days={days}
              here={here}
              wide={wide}
              onFirst={() => first(lane.piece_id, 0)}
              onOut={() =>
                onChange({
                  pieces: day.pieces.filter((one) => one !== lane.piece_id),
                  first: day.first === lane.piece_id ? null : day.first,
                })
              }
            />
          ))}
        </MovableRows>
      </div>
      <p className="mt-2 flex flex-wrap gap-5 text-small text-muted">
        <span className="flex items-center gap-2">
          <span className="inline-block h-4 w-8 bg-ink" /> {t("day.hands")}
        </span>
        <span className="flex items-center gap-2">
          <span className="inline-block h-4 w-8 border border-accent bg-tint" /> {t("day.wait")}
        </span>
        <span className="flex items-center gap-2">
          <span className="inline-block h-4 w-[3px] bg-accent" /> {t("day.now")}
        </span>
      </p>
    </div>
  );
}

interface LaneProps {
  lane: Day["lanes"][number];
  first: boolean;
  days: ReturnType<typeof daysOf>;
  /** Where now is, as a share of the width; null outside. */
  here: number | null;
  wide: number;
  onFirst: () => void;
  onOut: () => void;
}

/** A piece's lane: its name, its place in the day, and its hours. */
function Lane({ lane, first, days, here, wide, onFirst, onOut }: LaneProps) {
  const { t } = useTranslation();
  const { place, style, lifted, grip } = useMovable({ id: `${lane.piece_id}`, name: lane.name });
  return (
    <div
      ref={place}
      style={style}
      className={`col-span-2 grid grid-cols-subgrid border-t hairline ${lifted ? "bg-tint" : ""}`}
    >
      <div className="flex items-center gap-1 py-1 pr-2">
        {grip}
        <Link
          className="flex min-h-[44px] min-w-0 grow flex-col justify-center leading-tight"
          to={`/pieces/${lane.piece_id}/bench`}
        >
          <span className="truncate font-semibold">{lane.name}</span>
          <span className="text-note text-muted">
            {lane.due ? t("day.due", { day: dayName(`${lane.due}T`) }) : t("day.no_date")}
          </span>
        </Link>
        <Button
          className="px-2"
          aria-label={t("day.first", { piece: lane.name })}
          disabled={first}
          onClick={onFirst}
        >
          <ChevronUp aria-hidden="true" size={18} />
        </Button>
        <Button className="px-2" aria-label={t("day.out", { piece: lane.name })} onClick={onOut}>
          <X aria-hidden="true" size={18} />
        </Button>
      </div>
      <svg width={wide} height={58} className="block" role="img" aria-label={laneSays(lane, t)}>
        {hoursOf(days).map((hour) => (
          <line
            key={hour}
            x1={(placeOf(days, hour) ?? 0) * wide}
            x2={(placeOf(days, hour) ?? 0) * wide}
            y1={0}
            y2={58}
            stroke="var(--color-hair)"
          />
        ))}
        {goesOf(lane.placed).map((go) => (
          <Bar key={go.from} go={go} days={days} wide={wide} />
        ))}
        {here !== null && (
          <line
            x1={here * wide}
            x2={here * wide}
            y1={0}
            y2={58}
            stroke="var(--color-accent)"
            strokeWidth={3}
          />
        )}
      </svg>
    </div>
  );
}

function laneSays(lane: Day["lanes"][number], t: (key: string) => string): string {
  const goes = lane.placed.map((one) => `${clock(one.start)} ${one.title}`).join(", ");
  return `${lane.name}: ${goes || t("day.nothing_left")}`;
}

interface BarProps {
  go: ReturnType<typeof goesOf>[number];
  days: Span[];
  wide: number;
}

function Bar({ go, days, wide }: BarProps) {
  const { t } = useTranslation();
  const hands = drawn(days, go);
  const said = hands && barText(go.titles, hands.long * wide, (count) => t("day.steps", { count }));
  const wait = go.free > go.to ? drawn(days, { from: go.to, to: go.free }) : null;
  return (
    <g>
      {wait && (
        <rect
          x={wait.at * wide}
          width={Math.max(1, wait.long * wide)}
          y={20}
          height={18}
          fill="var(--color-tint)"
          stroke="var(--color-accent)"
        />
      )}
      {hands && (
        <>
          <title>{go.titles.join(" · ")}</title>
          <rect
            x={hands.at * wide}
            width={Math.max(2, hands.long * wide - 1)}
            y={10}
            height={38}
            fill="var(--color-ink)"
          />
          {said && (
            <text x={hands.at * wide + 6} y={34} fontSize={14} fill="var(--color-on-ink)">
              {said}
            </text>
          )}
        </>
      )}
    </g>
  );
}

function Scale({ days, width, lanes }: { days: Span[]; width: number; lanes: Day["lanes"] }) {
  // The maker's own hours, as the server wrote them.
  const offset = offsetOf(lanes[0]?.placed[0]?.start ?? "");
  const hours = hoursOf(days);
  const figures = figuresAt(
    hours.map((hour) => (placeOf(days, hour) ?? 0) * width),
    width,
  );
  return (
    <svg width={width} height={42} aria-hidden="true">
      {hours.map((hour, n) => {
        const x = figures[n];
        if (x == null) return null;
        const local = new Date(hour + offset);
        return (
          <text key={hour} x={x} y={36} fontSize={13} fill="var(--color-muted)" className="figures">
            {`${local.getUTCHours()}:00`}
          </text>
        );
      })}
      {days.map((day) => (
        <text
          key={day.from}
          x={(placeOf(days, day.from) ?? 0) * width + 3}
          y={15}
          fontSize={14}
          fontWeight={600}
          fill="var(--color-ink)"
        >
          {dayName(new Date(day.from + offset).toISOString())}
        </text>
      ))}
    </svg>
  );
}
