import type { Brief, Facts, FieldProblem, Piece, Plan, ShopView } from "../api/client";
import type { Edit } from "./usePiece";

/** What every station is given. */
export interface StationProps {
  piece: Piece;
  brief: Brief;
  plan: Plan | null;
  problems: readonly FieldProblem[];
  facts: Facts;
  shop: ShopView;
  edit: Edit;
  take: (piece: Piece) => void;
}

/** The sentence about a field, if there is something wrong with it or below it. */
export function problemAt(
  problems: readonly FieldProblem[],
  field: string,
  below = false,
): string | undefined {
  return problems.find((p) => p.field === field || (below && p.field.startsWith(`${field}.`)))
    ?.says;
}
