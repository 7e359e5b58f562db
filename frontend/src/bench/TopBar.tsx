import { Bell, BellOff, BellRing } from "lucide-react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { Chime, useChime } from "./useChime";
import { useTheme } from "../shared/useTheme";
import { Button } from "../shared/Button";
import type { View } from "./useActions";
import { Waiting } from "./Waiting";

interface TopProps {
  view: View;
  place: number;
  now: number;
  chime: ReturnType<typeof useChime>;
  onLeave: () => void;
}

// So many other pieces in hand stand in the bar; the bench has them all.
const MOST_BESIDE = 2;
const BELLS: Record<Chime, typeof Bell> = { both: BellRing, mark: Bell, none: BellOff };

/** Which piece, at which step, what waits, and what else is in hand. */
export function TopBar({ view, place, now, chime, onLeave }: TopProps) {
  const { t } = useTranslation();
  const theme = useTheme();
  const dark = theme.theme === "dark";
  const Signal = BELLS[chime.chime];
  const waiting = new Set(view.waits.map((one) => one.piece_id));
  const others = view.in_hand
    .filter((one) => one.id !== view.id && !waiting.has(one.id))
    .slice(-MOST_BESIDE);
  return (
    <header className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-ink px-6 py-2 laptop:flex-nowrap">
      <div className="mr-auto min-w-[9rem] flex-1">
        <h1 className="truncate text-title">
          {view.name}
          {view.wearer && <span className="font-normal text-muted"> · {view.wearer}</span>}
        </h1>
        <p className="text-body text-muted">
          {t("at.step_of", { at: place + 1, of: view.steps.length })}
        </p>
      </div>
      {/* On a tablet a row of its own: the ways out stay where they are. */}
      {(view.waits.length > 0 || others.length > 0) && (
        <div className="flex min-w-0 flex-wrap gap-x-3 gap-y-2 max-laptop:order-last max-laptop:w-full">
          <Waiting waits={view.waits} now={now} here={view.id} marks={chime.marks} />
          {others.map((one) => (
            <Link
              key={one.id}
              to={`/pieces/${one.id}/bench`}
              className="flex min-h-[44px] items-center rounded-sm border hairline bg-panel px-3 underline underline-offset-4"
            >
              <span className="max-w-[8rem] truncate">{one.name}</span>
            </Link>
          ))}
        </div>
      )}
      <Button
        onClick={chime.change}
        aria-label={t(`at.chime_${chime.chime}`)}
        title={t(`at.chime_${chime.chime}`)}
      >
        <Signal aria-hidden="true" size={20} />
      </Button>
      <Button onClick={() => theme.change(dark ? "light" : "dark")}>
        {t(dark ? "at.light" : "at.dark")}
      </Button>
      <Button onClick={onLeave} aria-keyshortcuts="Escape" title={t("at.leave_why")}>
        {t("at.leave")}
      </Button>
    </header>
  );
}
