import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Brief, Proposal } from "../../api/client";
import { queries } from "../../api/queries";
import { withCounts, withEdits } from "../sequence";
import { Button } from "../../shared/Button";
import { Column } from "../../shared/Column";
import { Figure } from "../../shared/Figure";
import type { StationProps } from "../context";

interface Trial {
  list: Proposal[];
  index: number;
  before: Brief["piece"];
  tried: string;
}

type Props = StationProps & { settled: boolean };

/** What would fit, the best first: tried on with a press, taken off with another. */
export function Proposals({ piece, brief, plan, edit, facts, settled }: Props) {
  const { t } = useTranslation();
  const found = useQuery({ ...queries.proposals(piece.id, piece.version), enabled: settled });
  const [trial, setTrial] = useState<Trial | null>(null);
  // Once anything else is changed the trial is over.
  const trying = trial && JSON.stringify(brief.piece) === trial.tried ? trial : null;
  const list = trying?.list ?? found.data ?? [];
  const defaults = facts.kinds.find((one) => one.kind === brief.piece.kind)?.defaults;
  const press = (index: number) => {
    const before = trying?.before ?? brief.piece;
    if (trying?.index === index) {
      edit(["piece"], before);
      setTrial(null);
      return;
    }
    const counted = withCounts(defaults, before, plan?.counted_out);
    const tried = { ...withEdits(counted, list[index]?.edits ?? []), counted: false };
    edit(["piece"], tried);
    setTrial({ list, index, before, tried: JSON.stringify(tried) });
  };
  if (list.length === 0) return null;
  return (
    <section aria-labelledby="fits" data-proposals>
      <div className="flex items-baseline justify-between">
        <h2 id="fits" className="sr-only">
          {t("sequence.fits")}
        </h2>
        {trying && (
          <Button look="quiet" className="!px-0" onClick={() => setTrial(null)}>
            {t("sequence.keep")}
          </Button>
        )}
      </div>
      <ul className="border-t hairline">
        <Column of={list.map((one) => (one.exact ? 0 : one.off_mm))}>
          {list.map((one, i) => (
            <li key={one.says + i} className="border-b hairline">
              <button
                type="button"
                aria-pressed={trying?.index === i || (!trying && one.now)}
                className="grid min-h-[46px] w-full grid-cols-[1fr_auto_88px] items-center gap-3 px-1 text-left leading-tight hover:bg-panel aria-pressed:bg-tint"
                onClick={() => press(i)}
              >
                <span>{one.says}</span>
                <span className="text-small text-muted">
                  {one.word && t(`ease_word.${one.word}`)}
                </span>
                <span className="text-right">
                  {one.exact ? (
                    <span className="font-semibold">{t("sequence.exact")}</span>
                  ) : (
                    <Figure mm={one.off_mm} signed className="text-base" />
                  )}
                </span>
              </button>
            </li>
          ))}
        </Column>
      </ul>
    </section>
  );
}
