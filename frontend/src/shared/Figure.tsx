import { useTranslation } from "react-i18next";
import { useBefore } from "../piece/useBefore";
import { useUnit } from "./useUnit";
import { showLength } from "./length";
import { useInchStyle } from "./Column";

interface Props {
  mm: number;
  places?: number;
  /** Show the unit after the figure. */
  unit?: boolean;
  signed?: boolean;
  className?: string;
}

/** A length in the workshop's unit; a fraction of an inch stands stacked, as high as its whole. */
export function Figure({ mm, places = 1, unit = false, signed = false, className = "" }: Props) {
  const shown = useUnit();
  const before = useBefore();
  const { text, fraction, spoken } = showLength(mm, shown, places, useInchStyle());
  return (
    <span className={`figures whitespace-nowrap ${className} ${before ? "text-muted" : ""}`}>
      {signed && mm >= 0 && "+ "}
      {signed && mm < 0 ? `− ${text.replace("−", "")}` : text}
      {fraction && <Fraction of={fraction} spoken={spoken} />}
      {unit && <span className="ml-1 text-[max(0.45em,13px)] font-normal">{shown}</span>}
      {before && <Before />}
    </span>
  );
}

function Before() {
  const { t } = useTranslation();
  return (
    <>
      {" "}
      <span className="ml-1 font-sans text-note font-normal">{t("before.word")}</span>
    </>
  );
}

/** Numerator over denominator; together they are as high as the digits beside them, or higher. */
function Fraction({ of: [top, bottom], spoken }: { of: [number, number]; spoken: string }) {
  const number = "block text-center text-[max(0.56em,12px)] leading-[1.02]";
  return (
    <>
      <span className="sr-only"> {spoken.split(" ").slice(-2)[0]}</span>
      <span
        aria-hidden="true"
        className="ml-[0.12em] inline-block align-middle tracking-normal [&>span]:px-[0.08em]"
      >
        <span className={`${number} border-b-[max(1px,0.05em)] border-current`}>{top}</span>
        <span className={number}>{bottom}</span>
      </span>
    </>
  );
}
