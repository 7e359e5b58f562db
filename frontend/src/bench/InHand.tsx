import "../locales/work";
import { useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { benchQueries } from "../api/benchQueries";
import { useServerNow } from "../shared/useServerNow";
import { addWords } from "../i18n";
import words from "../locales/en-bench.json";
import { left, spanText } from "./benchMode";

addWords(words);

/** What is in hand just now, and what is left alone for how long: one press goes on with it. */
export function InHand() {
  const { t } = useTranslation();
  const { data } = useQuery(benchQueries.waits());
  const now = useServerNow(data?.ahead ?? 0);
  if (!data || data.in_hand.length + data.waits.length === 0) return null;
  const alone = data.waits.filter((wait) => !data.in_hand.some((one) => one.id === wait.piece_id));
  const rows = [...data.in_hand, ...alone.map((wait) => ({ id: wait.piece_id, name: wait.piece }))];
  return (
    <section className="mt-3" aria-labelledby="in-hand">
      <h2 id="in-hand" className="border-b border-ink pb-0.5 text-lead">
        {t("in_hand.title")}
      </h2>
      <ul>
        {rows.map((piece) => {
          const wait = data.waits.findLast((one) => one.piece_id === piece.id);
          const rest = wait ? left(wait, now) : 0;
          return (
            <li key={piece.id} className="border-b hairline">
              <Link
                to={`/pieces/${piece.id}/bench`}
                className="flex min-h-[54px] items-center gap-4 py-1 hover:bg-panel"
              >
                <span className="grow text-lead font-semibold break-words">{piece.name}</span>
                {wait && (
                  <span
                    className={`rounded-sm px-2 py-1 ${rest > 0 ? "bg-tint" : "bg-ink text-on-ink"}`}
                  >
                    {rest > 0 ? t("in_hand.waits", { span: spanText(rest) }) : t("in_hand.over")}
                  </span>
                )}
                <span className="underline underline-offset-4">{t("in_hand.go_on")}</span>
              </Link>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
