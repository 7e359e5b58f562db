/** Which of its choices a part, closure or piece is asked: what matters with what is chosen. */

interface Choice {
  name: string;
  default: unknown;
  if_field?: string;
  if_values?: readonly string[];
}

/** The choices that matter now; what hangs on one that is not asked itself does not matter. */
export function choicesShown<T extends Choice>(
  choices: readonly T[],
  value: Record<string, unknown>,
): T[] {
  const byName = new Map(choices.map((one) => [one.name, one]));
  const matters = (one: T): boolean => {
    if (!one.if_field) return true;
    const on = byName.get(one.if_field);
    if (!on) return true;
    const now = value[on.name] ?? on.default;
    const values = one.if_values ?? [];
    const fits = values.length > 0 ? values.includes(String(now)) : Boolean(Number(now));
    return fits && matters(on);
  };
  return choices.filter(matters);
}
