import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { WaitView } from "../api/client";
import { left, spanText } from "./benchMode";

interface Props {
  waits: readonly WaitView[];
  now: number;
  /** The piece on the screen: its own waits lead nowhere else. */
  here?: number;
  /** Whether the end of a wait is marked. */
  marks: boolean;
}

/** Every wait that runs, with what is left of it; what is over stands out. */
export function Waiting({ waits, now, here, marks }: Props) {
  const { t } = useTranslation();
  return (
    <ul className="flex shrink-0 flex-wrap gap-2" aria-live="polite">
      {waits.map((wait) => {
        const over = left(wait, now) <= 0;
        const look = over && marks ? "border-ink bg-ink text-on-ink" : "hairline bg-panel text-ink";
        const body = (
          <>
            <span className="figures text-title font-semibold">{spanText(left(wait, now))}</span>
            <span className="max-w-[12rem] truncate text-body">
              {over && marks ? t("at.is_over", { piece: wait.piece }) : t("at.waits", { ...wait })}
            </span>
          </>
        );
        const box = `flex min-h-[44px] items-center gap-2 rounded-sm border px-3 ${look}`;
        return (
          <li key={wait.id}>
            {wait.piece_id === here ? (
              <span className={box}>{body}</span>
            ) : (
              <Link className={`${box} hover:border-ink`} to={`/pieces/${wait.piece_id}/bench`}>
                {body}
              </Link>
            )}
          </li>
        );
      })}
    </ul>
  );
}
