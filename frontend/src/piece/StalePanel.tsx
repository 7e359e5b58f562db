import { useTranslation } from "react-i18next";
import type { Brief, Stale } from "../api/client";
import { differences } from "./draft";
import { Button } from "../shared/Button";

interface Props {
  stale: Stale;
  mine: Brief;
  onMine: () => void;
  onTheirs: () => void;
}

/** Told when another tab saved first: both versions, side by side, and a way to keep either. */
export function StalePanel({ stale, mine, onMine, onTheirs }: Props) {
  const { t } = useTranslation();
  const rows = differences(mine, stale.brief);
  return (
    <section role="alert" className="border-b border-ink bg-tint px-6 py-4">
      <h2 className="text-lead">{t("stale.title")}</h2>
      <table className="my-2 text-body">
        <thead>
          <tr className="text-left">
            <th scope="col" className="pr-8 font-normal text-muted">
              {t("stale.field")}
            </th>
            <th scope="col" className="pr-8">
              {t("stale.mine")}
            </th>
            <th scope="col">{t("stale.theirs")}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.path}>
              <th scope="row" className="pr-8 text-left font-normal">
                {row.path.replaceAll("_", " ").replaceAll(".", " › ")}
              </th>
              <td className="figures pr-8">{row.mine}</td>
              <td className="figures">{row.theirs}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex gap-2">
        <Button look="strong" onClick={onMine}>
          {t("stale.keep_mine")}
        </Button>
        <Button onClick={onTheirs}>{t("stale.take_theirs")}</Button>
      </div>
    </section>
  );
}
