import { useTranslation } from "react-i18next";
import type { Plan } from "../api/client";
import { AdviceList } from "../shared/AdviceList";

/** What a plan advises, or that it waits, or that there is nothing to say. */
export function PlanAdvice({ plan }: { plan: Plan | null }) {
  const { t } = useTranslation();
  return (
    <section>
      <h2 className="mb-2 text-lead">{t("make_up.advice")}</h2>
      <AdviceList
        advice={plan?.advice ?? []}
        empty={t(plan ? "make_up.no_advice" : "ledger.waits")}
      />
    </section>
  );
}
