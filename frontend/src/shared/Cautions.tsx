import type { Plan } from "../api/client";

/** Cautions of a step: what to do, and why. The alarm colour is used for these only. */
export function Cautions({ plan, ids }: { plan: Plan; ids: readonly string[] }) {
  const shown = plan.cautions.filter((caution) => ids.includes(caution.id));
  if (shown.length === 0) return null;
  return (
    <ul className="mt-2 space-y-1">
      {shown.map((caution) => (
        <li key={caution.id} className="border-l-4 border-alarm pl-3 text-small">
          <strong className="font-semibold">{caution.says}</strong>{" "}
          <span className="text-muted">{caution.because}.</span>
        </li>
      ))}
    </ul>
  );
}
