import { useEffect, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import type { WovenShown } from "../../api/client";
import { useSize } from "../useSize";
import { addWords } from "../../i18n";
import words from "../../locales/en-woven.json";
import {
  boxOf,
  EDGE,
  END,
  FACE,
  further,
  rowsIn,
  seen,
  windowAt,
  type Seen,
  type Turn,
} from "../../piece/woven";
import { paler, toneOf } from "./tones";

addWords(words);

interface Props {
  shown: WovenShown;
  /** Rows that are done at the step that is looked at. */
  start: number;
  className?: string;
}

const SIDES = { face: FACE, edge: EDGE, end: END } as const;
/** How much is in view [mm]: a close look at how the wire runs, some rows, the whole body. */
const CLOSENESS = { row: 14, rows: 36, whole: 5000 } as const;
type Closeness = keyof typeof CLOSENESS;
// One press of an arrow key, and a drag across so many pixels, turn it by so much.
const KEY_TURNS = 10;
const DEGREES_A_PX = 0.5;
const AIR_PX = 14;
// A whole body of long strands is drawn in fewer, longer stretches.
const MOST_PIECES = 9000;

/** A woven body as it lies in space, turned by dragging or by the arrow keys, row by row. */
export function WovenView({ shown, start, className = "h-[300px]" }: Props) {
  const { t } = useTranslation();
  const [turn, setTurn] = useState<Turn>(FACE);
  const [near, setNear] = useState<Closeness>("rows");
  const [upto, setUpto] = useState(start);
  const drag = useRef<[number, number] | null>(null);
  const { ref, width } = useSize<HTMLDivElement>();
  const row = Math.min(Math.floor(upto) + 1, shown.rows);
  const keys: Record<string, [number, number]> = {
    ArrowLeft: [0, -KEY_TURNS],
    ArrowRight: [0, KEY_TURNS],
    ArrowUp: [-KEY_TURNS, 0],
    ArrowDown: [KEY_TURNS, 0],
  };
  const button =
    "min-h-[44px] rounded-sm border hairline bg-panel px-3 hover:border-ink aria-pressed:border-accent aria-pressed:bg-tint";
  return (
    <section aria-label={t("woven.name", { what: shown.label })} className="space-y-2">
      <div className="flex flex-wrap gap-1.5">
        {(Object.keys(SIDES) as (keyof typeof SIDES)[]).map((side) => (
          <button
            key={side}
            type="button"
            className={button}
            aria-pressed={turn.roll === SIDES[side].roll && turn.yaw === SIDES[side].yaw}
            onClick={() => setTurn(SIDES[side])}
          >
            {t(`woven.side.${side}`)}
          </button>
        ))}
        {shown.row_name !== "" && (
          <span className="ml-auto flex gap-1.5">
            {(Object.keys(CLOSENESS) as Closeness[]).map((one) => (
              <button
                key={one}
                type="button"
                className={button}
                aria-pressed={near === one}
                onClick={() => setNear(one)}
              >
                {t(`woven.near.${one}`, { row: shown.row_name })}
              </button>
            ))}
          </span>
        )}
      </div>
      <div
        ref={ref}
        role="slider"
        tabIndex={0}
        aria-label={t("woven.turns", { what: shown.label })}
        aria-valuemin={-180}
        aria-valuemax={180}
        aria-valuenow={turn.yaw}
        aria-valuetext={t("woven.turned", { roll: turn.roll, yaw: turn.yaw })}
        data-drawn="woven"
        data-turn={`${turn.roll} ${turn.yaw}`}
        className={`w-full cursor-grab touch-pan-y overflow-hidden rounded-sm border hairline bg-panel active:cursor-grabbing ${className}`}
        onKeyDown={(event) => {
          const by = keys[event.key];
          if (!by) return;
          event.preventDefault();
          event.stopPropagation();
          setTurn(further(turn, ...by));
        }}
        onPointerDown={(event) => {
          drag.current = [event.clientX, event.clientY];
          event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerMove={(event) => {
          const from = drag.current;
          if (!from) return;
          const [dx, dy] = [event.clientX - from[0], event.clientY - from[1]];
          drag.current = [event.clientX, event.clientY];
          setTurn((now) => further(now, dy * DEGREES_A_PX, dx * DEGREES_A_PX));
        }}
        onPointerUp={() => (drag.current = null)}
        onPointerCancel={() => (drag.current = null)}
      >
        {width > 0 && (
          <Picture {...{ shown, turn, upto, width }} rows={rowsIn(shown, CLOSENESS[near])} />
        )}
      </div>
      <div className="flex items-center gap-3">
        {shown.row_name !== "" && (
          <label className="flex min-h-[44px] flex-1 items-center gap-3">
            <span className="whitespace-nowrap">
              {shown.row_name}{" "}
              <strong className="figures">{t("woven.of", { row, rows: shown.rows })}</strong>
            </span>
            <input
              type="range"
              className="h-11 min-w-0 flex-1 accent-[var(--color-accent)]"
              min={0}
              max={shown.rows}
              step={0.125}
              value={upto}
              aria-valuetext={`${shown.row_name} ${t("woven.of", { row, rows: shown.rows })}`}
              onChange={(event) => setUpto(Number(event.target.value))}
            />
          </label>
        )}
        <span className="text-small text-muted">{t("woven.how")}</span>
      </div>
    </section>
  );
}

interface PictureProps {
  shown: WovenShown;
  turn: Turn;
  upto: number;
  rows: number;
  width: number;
}

function Picture({ shown, turn, upto, rows, width }: PictureProps) {
  const ref = useRef<HTMLCanvasElement>(null);
  const theme = useThemeInForce();
  useEffect(() => {
    const canvas = ref.current;
    const height = canvas?.parentElement?.clientHeight ?? 0;
    const context = canvas?.getContext("2d");
    if (!canvas || !context || height === 0) return;
    const sharp = Math.min(devicePixelRatio || 1, 2);
    canvas.width = width * sharp;
    canvas.height = height * sharp;
    context.setTransform(sharp, 0, 0, sharp, 0, 0);
    const window = windowAt(shown, upto, rows);
    // The room is that of all rows in view, done or not: the picture keeps its place.
    const all = seen(shown, window, window.first + window.count, turn);
    const pieces = upto >= window.first + window.count ? all : seen(shown, window, upto, turn);
    paint(context, thinned(pieces), boxOf(all), width, height, colours(canvas));
  }, [shown, turn, upto, rows, width, theme]);
  return <canvas ref={ref} className="block h-full w-full" aria-hidden="true" />;
}

/** Fewer pieces where there are very many, each as long as several. */
function thinned(pieces: Seen[]): Seen[] {
  const step = Math.ceil(pieces.length / MOST_PIECES);
  if (step < 2) return pieces;
  // Points within a piece go first: its two ends will do.
  return pieces.map((one) =>
    one.points.length > 2
      ? { ...one, points: [one.points[0], one.points.at(-1)] as Seen["points"] }
      : one,
  );
}

interface Colours {
  ink: string;
  panel: string;
  of: (colour: string) => string;
}

function colours(canvas: HTMLCanvasElement): Colours {
  const style = getComputedStyle(canvas);
  const named = (name: string) => style.getPropertyValue(name).trim();
  return {
    ink: named("--color-ink"),
    panel: named("--color-panel"),
    of: (colour) => {
      const tone = toneOf(colour) ?? colour;
      const name = /^var\((.+)\)$/.exec(tone)?.[1];
      return name ? named(name) : tone;
    },
  };
}

/** Draws what is seen, the furthest first, each piece with its own outline. */
function paint(
  context: CanvasRenderingContext2D,
  pieces: readonly Seen[],
  box: ReturnType<typeof boxOf>,
  width: number,
  height: number,
  colour: Colours,
): void {
  const [wide, high] = [box.high[0] - box.low[0], box.high[1] - box.low[1]];
  const scale = Math.min((width - 2 * AIR_PX) / wide, (height - 2 * AIR_PX) / high);
  const x0 = width / 2 - (scale * (box.low[0] + box.high[0])) / 2;
  const y0 = height / 2 + (scale * (box.low[1] + box.high[1])) / 2;
  context.clearRect(0, 0, width, height);
  const line = Math.min(1.2, Math.max(0.5, scale * 0.08));
  for (const one of pieces) {
    if (one.kind === "bead") {
      const [x, y] = one.points[0] as Seen["points"][number];
      context.beginPath();
      context.ellipse(
        x0 + x * scale,
        y0 - y * scale,
        (one.long * scale) / 2,
        (one.wide * scale) / 2,
        -one.slant,
        0,
        2 * Math.PI,
      );
      context.fillStyle = colour.of(one.colour);
      context.fill();
      context.strokeStyle = colour.ink;
      context.lineWidth = line;
      context.stroke();
      continue;
    }
    context.beginPath();
    one.points.forEach(([x, y], i) =>
      context[i === 0 ? "moveTo" : "lineTo"](x0 + x * scale, y0 - y * scale),
    );
    const thick = Math.max(one.wide * scale, 1);
    context.lineJoin = "round";
    context.lineCap = "butt";
    context.strokeStyle = colour.ink;
    context.lineWidth = thick;
    context.stroke();
    context.lineCap = "round";
    context.strokeStyle = one.holds ? paler(one.colour, colour.panel) : one.colour;
    context.lineWidth = Math.max(thick - 2 * line, 0.6);
    context.stroke();
  }
}

/** The theme that the page is drawn in, so that a picture is drawn anew when it changes. */
function useThemeInForce(): string {
  const [theme, set] = useState(document.documentElement.dataset.theme ?? "");
  useEffect(() => {
    const look = () => set(document.documentElement.dataset.theme ?? "");
    const watch = new MutationObserver(look);
    watch.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
    return () => watch.disconnect();
  }, []);
  return theme;
}
