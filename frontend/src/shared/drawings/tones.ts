/** What a bead, or what is bought, is filled with; wire takes its metal's own colour. */
const TONES: Record<string, string> = {
  reed: "var(--color-reed)",
  slate: "var(--color-slate)",
  amber: "var(--color-amber)",
  brick: "var(--color-brick)",
  plum: "var(--color-plum)",
  chalk: "var(--color-chalk)",
  ink: "var(--color-inkbead)",
  bought: "var(--color-bought)",
};

/** The colour of a tone: a bead's, that of what is bought, or of a metal that is not the body's. */
export function toneOf(tone: string | undefined): string | undefined {
  return tone?.startsWith("#") ? tone : TONES[tone ?? ""];
}

// How much of its own colour something keeps that stands back.
const KEPT = 0.6;

/** A colour nearer to the ground that it lies on, both as #rrggbb: it stands back. */
export function paler(colour: string, ground: string): string {
  const parts = (hex: string) => [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16));
  const [own, under] = [parts(colour), parts(ground)];
  if ([...own, ...under].some(Number.isNaN)) return colour;
  const mixed = own.map((one, n) => Math.round(one * KEPT + (under[n] ?? 0) * (1 - KEPT)));
  return `#${mixed.map((one) => one.toString(16).padStart(2, "0")).join("")}`;
}
