import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { Day } from "../api/client";
import { clock, minutesText, orderOf } from "./day";

/** The same in words: what is taken up when, and how many steps of it are done in that go. */
export function Order({ lanes }: { lanes: Day["lanes"] }) {
  const { t } = useTranslation();
  const order = orderOf(lanes);
  if (order.length === 0) return null;
  return (
    <section className="mt-4" aria-labelledby="day-order">
      <h2 id="day-order" className="border-b border-ink pb-0.5 text-lead">
        {t("day.order")}
      </h2>
      <ol>
        {order.map((go) => (
          <li key={go.from} className="border-b hairline">
            <Link
              to={`/pieces/${go.piece}/bench`}
              className="grid min-h-[44px] grid-cols-[64px_minmax(0,1fr)_auto] items-center gap-x-3 py-1 leading-tight hover:bg-panel"
            >
              <span className="figures text-head font-semibold">{clock(go.at)}</span>
              <span className="min-w-0">
                <span className="font-semibold">{go.name}</span>{" "}
                <span className="text-muted">
                  {go.titles[0]}
                  {go.titles.length > 1 && ` + ${t("day.steps", { count: go.titles.length - 1 })}`}
                </span>
              </span>
              <span className="figures text-body text-muted">
                {minutesText((go.to - go.from) / 60_000)}
              </span>
            </Link>
          </li>
        ))}
      </ol>
    </section>
  );
}
