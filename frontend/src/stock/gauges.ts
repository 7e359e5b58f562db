import type { Unit } from "../api/client";
import { lengthText } from "../shared/length";

interface Near {
  number: number;
  diameter_mm: number;
}

/** What a size is nearest to in both gauge systems, each with its diameter in the maker's unit. */
export function nearest(found: { awg: Near; swg: Near }, unit: Unit): { awg: string; swg: string } {
  const say = (near: Near, system: string) =>
    `${near.number} ${system} (${lengthText(near.diameter_mm, unit, 2, "decimals")})`;
  return { awg: say(found.awg, "AWG"), swg: say(found.swg, "SWG") };
}
