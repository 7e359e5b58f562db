import { useTranslation } from "react-i18next";
import type { Plan } from "../api/client";
import { Figure } from "../shared/Figure";

/** What the maker's own hand changes about the piece: each figure with it and without. */
export function OwnAndUsual({ plan }: { plan: Plan }) {
  const { t } = useTranslation();
  const rows = plan.own_and_usual ?? [];
  if (rows.length === 0) return null;
  return (
    <table className="mt-2 w-full text-body">
      <caption className="pb-1 text-left font-semibold">{t("own_and_usual.title")}</caption>
      <thead>
        <tr className="border-b border-ink text-right text-note text-muted">
          <td />
          <th className="font-normal">{t("own_and_usual.own")}</th>
          <th className="font-normal">{t("own_and_usual.usual")}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.id} className="border-b hairline text-right">
            <th scope="row" className="py-1 text-left font-normal">
              {row.label}
              <span className="block text-note text-muted">
                {t("own_and_usual.records", { count: row.records })}
              </span>
            </th>
            {[row.own, row.usual].map((value, n) => (
              <td key={n} className={n === 0 ? "font-semibold" : ""}>
                {row.unit === "mm" ? (
                  <Figure mm={value} unit />
                ) : (
                  <span className="figures">
                    {Math.round(value)} {t("own_and_usual.min")}
                  </span>
                )}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
