import { useUnit } from "../hooks/useUnit";
import { showLength } from "../logic/length";

interface Props {
  mm: number;
  places?: number;
  /** Show the unit after the figure. */
  unit?: boolean;
  signed?: boolean;
  className?: string;
}

/** A length in the workshop's unit; fractions of an inch are set as fractions. */
export function Figure({ mm, places = 1, unit = false, signed = false, className = "" }: Props) {
  const shown = useUnit();
  const { text, fraction } = showLength(mm, shown, places);
  return (
    <span className={`figures whitespace-nowrap ${className}`}>
      {signed && mm >= 0 && "+ "}
      {signed && mm < 0 ? `− ${text.replace("−", "")}` : text}
      {fraction && (
        <>
          {" "}
          <sup className="text-[0.6em]">{fraction[0]}</sup>⁄
          <sub className="bottom-0 text-[0.6em]">{fraction[1]}</sub>
        </>
      )}
      {unit && <span className="ml-1 text-[max(0.45em,13px)] font-normal">{shown}</span>}
    </span>
  );
}
