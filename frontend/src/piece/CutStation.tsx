import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Plan } from "../api/client";
import { Link } from "react-router";
import { StraightWire } from "../shared/drawings/StraightWire";
import { useBefore } from "./useBefore";
import { useKept } from "../shared/useKept";
import { asksWhether } from "./slips";
import { cutGroups, type CutGroup } from "./standing";
import { AdviceList } from "../shared/AdviceList";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Problem, TextField } from "../shared/TextField";
import type { StationProps } from "./context";
import { CutAlready } from "./CutAlready";
import { CutBoard } from "../stock/CutBoard";
import { StepList } from "./StepList";
import { Trays } from "../stock/Trays";
import { useTick } from "./useTick";

/** The cut board: wires straight and to scale, ticked off as they are cut. */
export function CutStation(props: StationProps) {
  const { plan, piece } = props;
  const { t } = useTranslation();
  // Stands for all that the board hangs on.
  const at = piece.version * 1000 + piece.ticks.length;
  const advice = (plan?.advice ?? []).filter((one) => one.field === "cut");
  const before = useBefore();
  // The last wire of a piece can be undone on the board, too.
  const [cutHere, setCutHere] = useState(false);
  const groups = plan ? cutGroups(plan.cuts, piece.standing.open_wires ?? []) : [];
  return (
    <div className="col-span-full space-y-5">
      <CutAlready {...props} />
      {!before && (cutHere || groups.some((group) => group.open > 0)) && (
        <section>
          <div className="mb-1 flex items-baseline justify-between gap-4">
            <h2 className="text-lead">{t("board.title")}</h2>
            <Link
              className="inline-flex min-h-[44px] items-center underline underline-offset-4"
              to="/cutting"
            >
              {t("board.batch")}
            </Link>
          </div>
          <CutBoard
            pieces={String(piece.id)}
            at={at}
            onCut={(changed) => {
              setCutHere(true);
              props.take(changed);
            }}
          />
        </section>
      )}
      {!before && plan && (plan.needs ?? []).length > 0 && (
        <Trays
          pieces={String(piece.id)}
          at={at}
          piece={piece}
          plan={plan}
          heading="h2"
          onTaken={props.take}
        />
      )}
      {groups.map((group) => (
        <CutCard key={group.cut.id} {...props} group={group} />
      ))}
      <AdviceList advice={advice} />
      {plan && (
        <section>
          <h2 className="mb-1 text-lead">{t("cut.order")}</h2>
          <StepList station="cut" {...props} />
        </section>
      )}
    </div>
  );
}

type Props = StationProps & { group: CutGroup };

/** Wires that are cut alike: drawn once, ticked off together, each kept for whom it is. */
function CutCard({ group, ...props }: Props) {
  const { cut, quantity, open } = group;
  const { t } = useTranslation();
  const tick = useTick(props);
  const [shown, setShown] = useState(false);
  const typed = useKept(`as-cut.${props.piece.id}.${cut.id}`, () => "");
  const done = quantity - open;
  const before = useBefore();
  const drawn = open > 0 || shown || before;
  return (
    <section>
      <h2 className="flex items-baseline gap-2 text-lead">
        <span>
          {quantity > 1 && `${quantity} × `}
          {cut.label}
          <span className="font-normal text-muted">
            {" "}
            · {cut.wire} {cut.metal}, {cut.temper}
          </span>
        </span>
        {open === 0 && !before && (
          <Button look="quiet" className="ml-auto" onClick={() => setShown(!shown)}>
            {t(shown ? "cut.hide_marks" : "cut.show_marks")}
          </Button>
        )}
      </h2>
      {drawn && <StraightWire cut={cut} colour={colourOf(cut, props.plan)} />}
      {drawn && <RecordSays cut={cut} />}
      {!before && (quantity > 1 || open === 0) && (
        <p className="mb-2 text-body text-muted">{t("cut.of", { done, all: quantity })}</p>
      )}
      {!before && (
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            tick.mutate(
              { kind: "cut", key: cut.id, ticked: open > 0, actual: open > 0 ? typed.value : "" },
              { onSuccess: () => typed.change("") },
            );
          }}
        >
          {open > 0 && (
            <TextField
              label={t("cut.actual")}
              className="w-64"
              placeholder={t("cut.as_planned")}
              inputMode="decimal"
              value={typed.value}
              onText={typed.change}
            />
          )}
          {asksWhether(tick.error) && (
            <Button
              onClick={() =>
                tick.mutate(
                  { kind: "cut", key: cut.id, ticked: true, actual: typed.value, sure: true },
                  { onSuccess: () => typed.change("") },
                )
              }
            >
              {t("board.sure", { actual: typed.value })}
            </Button>
          )}
          <Button type="submit" look={open > 0 ? "strong" : "plain"} disabled={tick.isPending}>
            {t(open === 0 ? "cut.untick" : open > 1 ? "cut.tick_all" : "cut.tick")}
          </Button>
        </form>
      )}
      <Problem says={asksWhether(tick.error) ? undefined : tick.error?.message} />
    </section>
  );
}

/** What a margin from the record adds, and what it rests on. */
function RecordSays({ cut }: { cut: Plan["cuts"][number] }) {
  const line = cut.lines.find((one) => one.says);
  if (!line) return null;
  return (
    <p className="mb-2 text-body">
      <Figure mm={line.value_mm} signed unit className="font-semibold" />{" "}
      <span className="text-muted">{line.says}</span>
    </p>
  );
}

function colourOf(cut: Plan["cuts"][number], plan: Plan | null): string {
  return cut.colour || (plan?.colour ?? "#B0643A");
}
