import { useTranslation } from "react-i18next";
import type { Plan } from "../api/client";
import { StraightWire } from "../drawings/StraightWire";
import { asText } from "../logic/draft";
import { AdviceList } from "../ui/AdviceList";
import { Button } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { Problem, TextField } from "../ui/TextField";
import { problemAt, type StationProps } from "./context";
import { StepList } from "./StepList";
import { useTick } from "./useTick";

/** The cut board: wires straight and to scale, ticked off as they are cut. */
export function CutStation(props: StationProps) {
  const { plan } = props;
  const { t } = useTranslation();
  const advice = (plan?.advice ?? []).filter((one) => one.field.startsWith("made"));
  return (
    <div className="col-span-full space-y-5">
      {plan?.cuts.map((cut) => (
        <CutCard key={cut.id} {...props} cut={cut} plan={plan} />
      ))}
      <AdviceList advice={advice} />
      <section>
        <h2 className="mb-1 text-lg">{t("cut.order")}</h2>
        <StepList station="cut" {...props} />
      </section>
    </div>
  );
}

type Props = Omit<StationProps, "plan"> & { plan: Plan; cut: Plan["cuts"][number] };

function CutCard({ cut, ...props }: Props) {
  const { plan, piece, brief, problems, edit } = props;
  const { t } = useTranslation();
  const tick = useTick(props);
  const ticked = piece.ticks.find((one) => one.kind === "cut" && one.key === cut.id);
  const frozen = piece.frozen_cuts[cut.id];
  const stale = ticked && frozen !== undefined && piece.stations.cut?.state === "stale";
  return (
    <section>
      <h2 className="text-lg">
        {cut.quantity > 1 && `${cut.quantity} × `}
        {cut.label}
        <span className="font-normal text-muted">
          {" "}
          · {cut.wire} {cut.metal}, {cut.temper}
        </span>
      </h2>
      <StraightWire cut={cut} colour={plan.colour} />
      {stale && (
        <p className="mb-3 border-l-4 border-ink pl-3">
          <strong>{t("cut.stale")}</strong> {t("cut.stale_then")}{" "}
          <Figure mm={frozen} unit className="font-semibold" /> {t("cut.stale_now")}{" "}
          <Figure mm={cut.length_mm} unit className="font-semibold" />.
        </p>
      )}
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          const actual = asText(brief.made?.[cut.id]);
          tick.mutate({ kind: "cut", key: cut.id, ticked: !ticked, actual });
        }}
      >
        <TextField
          label={t("cut.actual")}
          className="w-64"
          placeholder={t("cut.as_planned")}
          inputMode="decimal"
          value={asText(brief.made?.[cut.id])}
          onText={(actual) => edit(["made", cut.id], actual)}
        />
        <Button type="submit" look={ticked ? "plain" : "strong"} disabled={tick.isPending}>
          {t(ticked ? "cut.untick" : "cut.tick")}
        </Button>
        {ticked && (
          <p className="pb-3 text-muted">
            {t("cut.ticked")} <Figure mm={ticked.actual_mm ?? 0} unit />
          </p>
        )}
      </form>
      <Problem says={problemAt(problems, `made.${cut.id}`) ?? tick.error?.message} />
    </section>
  );
}
