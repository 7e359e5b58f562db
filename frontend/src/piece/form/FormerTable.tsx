import { useTranslation } from "react-i18next";
import type { Plan } from "../../api/client";
import { placeKey, sameRows } from "../formers";
import { Column } from "../../shared/Column";
import { Figure } from "../../shared/Figure";

interface Props {
  formers: Plan["formers"];
  bends: Plan["bends"];
}

// So near its end a jaw is marked by no measure.
const AT_TIP_MM = 0.05;

/** What to bend on: the ideal, the maker's own place for it, and what comes off that. */
export function FormerTable({ formers, bends }: Props) {
  const { t } = useTranslation();
  const cell = "border-b hairline py-1.5 pr-3 text-left align-top";
  const rows = sameRows(bends);
  const every = [
    ...formers.flatMap((one) => [one.former_mm, one.tool_mm, one.result_mm]),
    ...rows.flatMap(({ bend }) => [bend.pin, bend.tool_mm, bend.result_mm]),
  ];
  return (
    <table className="w-full text-body">
      <thead className="text-small text-muted">
        <tr>
          {["what", "ideal", "yours", "opens_to"].map((key) => (
            <th key={key} scope="col" className={`${cell} font-normal`}>
              {t(`form.${key}`)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        <Column of={every}>
          {formers.map((former) => (
            <tr key={former.target_mm}>
              <th scope="row" className={`${cell} font-semibold`}>
                {t("form.body")}
              </th>
              <td className={cell}>
                <Figure mm={former.former_mm} />
              </td>
              <td className={cell}>
                <Place tool={former.tool} mm={former.tool_mm} at={former.at_mm} />
                {(former.ratio ?? 1) > 1 && <span className="block">{t("form.oval_tool")}</span>}
              </td>
              <td className={cell}>
                {former.result_mm ? <Figure mm={former.result_mm} /> : "–"}
                {former.result_mm != null && former.doubt_mm != null && (
                  <span className="block text-small">
                    ± <Figure mm={former.doubt_mm} />
                  </span>
                )}
                {former.off_mm != null && Math.abs(former.off_mm) >= 0.05 && (
                  <span className="block text-small">
                    {t(former.off_mm > 0 ? "form.wider" : "form.tighter")}{" "}
                    <Figure mm={Math.abs(former.off_mm)} />
                  </span>
                )}
              </td>
            </tr>
          ))}
          {rows.map(({ bend, labels }) => (
            <tr key={bend.id}>
              <th scope="row" className={`${cell} font-semibold`}>
                {labels.join(", ")}
                {labels.length > 1 && (
                  <span className="block text-small font-normal">{t("form.one_place")}</span>
                )}
              </th>
              <td className={cell}>{bend.pin > 0 ? <Figure mm={bend.pin} /> : "–"}</td>
              <td className={cell}>
                <Place tool={bend.tool} mm={bend.tool_mm} at={bend.at_mm} />
              </td>
              <td className={cell}>
                <Figure mm={bend.result_mm ?? bend.opens_to_mm} places={2} />
                {placeKey(bend) && (
                  <span className="block text-small">
                    {t(`form.${placeKey(bend)}`)} <Figure mm={Math.abs(bend.more_mm ?? 0)} />
                  </span>
                )}
              </td>
            </tr>
          ))}
        </Column>
      </tbody>
    </table>
  );
}

interface PlaceProps {
  tool: string | null | undefined;
  mm: number | null | undefined;
  at: number | null | undefined;
}

/** A tool and the place on it: the step, or where on the jaw to mark it. */
function Place({ tool, mm, at }: PlaceProps) {
  const { t } = useTranslation();
  if (!tool) return "–";
  return (
    <>
      {mm != null && <Figure mm={mm} className="font-semibold" />} {tool}
      {at != null && (
        <span className="block text-small">
          {at < AT_TIP_MM ? (
            t("form.at_tip")
          ) : (
            <>
              {t("form.mark_at")} <Figure mm={at} />
            </>
          )}
        </span>
      )}
    </>
  );
}
