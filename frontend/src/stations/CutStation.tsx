import { useTranslation } from "react-i18next";
import type { Plan } from "../api/client";
import { Link } from "react-router";
import { StraightWire } from "../drawings/StraightWire";
import { asText } from "../logic/draft";
import { AdviceList } from "../ui/AdviceList";
import { Button } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { Problem, TextField } from "../ui/TextField";
import { problemAt, type StationProps } from "./context";
import { CutBoard } from "./CutBoard";
import { StepList } from "./StepList";
import { Trays } from "./Trays";
import { useTick } from "./useTick";

/** The cut board: wires straight and to scale, ticked off as they are cut. */
export function CutStation(props: StationProps) {
  const { plan } = props;
  const { t } = useTranslation();
  // Stands for all that the board hangs on.
  const at = props.piece.version * 1000 + props.piece.ticks.length;
  const advice = (plan?.advice ?? []).filter((one) => one.field.startsWith("made"));
  return (
    <div className="col-span-full space-y-5">
      {plan && plan.cuts.some((cut) => cut.stock) && (
        <section>
          <div className="mb-1 flex items-baseline justify-between gap-4">
            <h2 className="text-lg">{t("board.title")}</h2>
            <Link
              className="inline-flex min-h-[44px] items-center underline underline-offset-4"
              to="/cutting"
            >
              {t("board.batch")}
            </Link>
          </div>
          <CutBoard pieces={String(props.piece.id)} at={at} onCut={props.take} />
        </section>
      )}
      {plan && (plan.needs ?? []).length > 0 && (
        <Trays
          pieces={String(props.piece.id)}
          at={at}
          piece={props.piece}
          plan={plan}
          heading="h2"
          onTaken={props.take}
        />
      )}
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
  const mine = piece.ticks.filter(
    (one) => one.kind === "cut" && (one.key === cut.id || one.key.startsWith(`${cut.id}#`)),
  );
  const several = cut.quantity > 1 && Boolean(cut.stock);
  const ticked = !several || mine.length >= cut.quantity ? mine[0] : undefined;
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
      {several && (
        <p className="mb-2 text-[15px] text-muted">
          {t("cut.of", { done: mine.length, all: cut.quantity })}
        </p>
      )}
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
          {t(ticked ? "cut.untick" : several ? "cut.tick_all" : "cut.tick")}
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
