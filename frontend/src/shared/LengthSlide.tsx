import { useTranslation } from "react-i18next";
import { roughMm } from "./length";

interface Props {
  label: string;
  value: unknown;
  low: number;
  high: number;
  inches: boolean;
  onSlide: (value: string) => void;
}

// Further than this a slider is too coarse to be of use [mm].
const FURTHEST = 1000;

/** Slides a length that a maker would rather see than type. */
export function LengthSlide({ label, value, low, high, inches, onSlide }: Props) {
  const { t } = useTranslation();
  const says = t("make_up.slide", { what: label });
  return (
    <div>
      <span aria-hidden className="font-semibold first-letter:uppercase">
        {says}
      </span>
      <input
        type="range"
        aria-label={says}
        className="h-11 w-full accent-accent"
        min={low}
        max={Math.min(high, FURTHEST)}
        step={1}
        value={roughMm(value, inches)}
        onChange={(event) => onSlide(`${event.target.value} mm`)}
      />
    </div>
  );
}
