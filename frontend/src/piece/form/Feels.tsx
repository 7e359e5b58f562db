import { useTranslation } from "react-i18next";
import type { Plan } from "../../api/client";
import { Figure } from "../../shared/Figure";

/** How the piece feels and what gives first: newtons, and words beside every one of them. */
export function Feels({ plan }: { plan: Plan }) {
  const { t } = useTranslation();
  const feels = plan.feels ?? [];
  const weakest = plan.weakest;
  if (feels.length === 0 && !weakest) return null;
  return (
    <section>
      <h2 className="mb-1 text-lead">{t("feels.title")}</h2>
      <dl className="space-y-1.5 text-body">
        {feels.map((feel) => (
          <div key={feel.id}>
            <dt className="inline font-semibold first-letter:uppercase">
              {feel.label}
              {feel.newtons != null && feel.id !== "gives" && `, ${newtons(feel.newtons)}`}:
            </dt>{" "}
            <dd className="inline">
              {feel.id === "gives" && feel.value_mm != null && (
                <>
                  <Figure mm={feel.value_mm} unit />,{" "}
                </>
              )}
              {feel.says}
            </dd>
          </div>
        ))}
        {weakest && (
          <div>
            <dt className="inline font-semibold">{t("feels.weakest")}:</dt>{" "}
            <dd className="inline">
              {t("feels.gives", { what: weakest.says, felt: weakest.felt })}{" "}
              <span className="figures">{newtons(weakest.newtons)}</span>
              {weakest.up_to_newtons != null && (
                <>, {t("feels.up_to", { newtons: newtons(weakest.up_to_newtons) })}</>
              )}
            </dd>
          </div>
        )}
      </dl>
    </section>
  );
}

function newtons(value: number): string {
  // A figure and its unit stay on one line.
  return `${value < 1 ? value.toFixed(2) : value.toFixed(1)}\u00a0N`;
}
