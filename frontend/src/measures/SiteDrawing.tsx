import { useTranslation } from "react-i18next";
import { addWords } from "../i18n";
import words from "../locales/en-measure.json";

addWords(words);

/** Where the tape or calliper goes at each site: a region of the body, and the line to follow. */
const REGIONS: Record<string, { body: string[]; view: string }> = {
  hand: {
    view: "0 0 240 180",
    body: [
      "M0 62 C40 60 66 66 84 70 C98 58 118 46 138 44 L205 38 Q216 40 212 50 L150 60 L222 60 Q232 66 222 74 L154 76 L218 84 Q226 92 214 98 L152 92 L200 106 Q206 116 194 118 L142 110 C128 116 112 118 98 114 L84 110 C60 116 36 118 0 116",
      "M112 108 C120 92 132 84 148 80 Q160 80 154 90 C144 94 136 102 130 112",
    ],
  },
  head: {
    view: "0 0 240 200",
    body: [
      "M84 84 C80 40 98 16 120 16 C142 16 160 40 156 84 C154 112 140 134 120 134 C100 134 86 112 84 84Z",
      "M84 78 C76 74 74 92 80 102 C83 106 86 104 86 100",
      "M156 78 C164 74 166 92 160 102 C157 106 154 104 154 100",
      "M104 130 L102 156 C80 164 52 170 40 198",
      "M136 130 L138 156 C160 164 188 170 200 198",
    ],
  },
  ear: {
    view: "0 0 200 200",
    body: [
      "M76 70 C72 34 100 16 124 24 C150 32 152 66 142 92 C134 112 128 120 124 140 C120 162 98 170 88 154 C82 144 86 132 84 122",
      "M92 72 C90 50 104 38 120 44 C136 52 132 74 124 92 C118 106 110 110 104 122",
    ],
  },
  figure: {
    view: "0 0 200 200",
    body: [
      "M84 0 C84 24 80 40 60 48 C44 56 38 90 36 130 L30 200",
      "M116 0 C116 24 120 40 140 48 C156 56 162 90 164 130 L170 200",
      "M62 92 L58 200 M138 92 L142 200",
    ],
  },
  foot: {
    view: "0 0 200 200",
    body: [
      "M70 0 C72 50 78 90 74 130 C70 150 60 160 62 176 C70 186 130 186 176 180 C184 174 176 164 160 160 C140 154 122 146 118 130 C114 90 122 50 126 0",
    ],
  },
};

interface Line {
  region: keyof typeof REGIONS;
  /** The line that tape or calliper follows. */
  path: string;
  /** A calliper measures straight across, between two jaws. */
  calliper?: boolean;
}

const LINES: Record<string, Line> = {
  wrist_girth: { region: "hand", path: "M62 66 C54 78 54 102 62 114 C72 106 74 78 62 66Z" },
  wrist_breadth: { region: "hand", path: "M62 66 L62 114", calliper: true },
  wrist_depth: { region: "hand", path: "M50 90 L76 90", calliper: true },
  hand_pass_girth: {
    region: "hand",
    path: "M134 44 C122 62 122 98 136 114 C150 96 150 62 134 44Z",
  },
  upper_arm_girth: { region: "figure", path: "M37 112 C44 118 54 118 61 112" },
  ankle_girth: { region: "foot", path: "M75 124 C88 132 108 132 118 124" },
  neck_girth: { region: "head", path: "M103 146 C110 151 130 151 137 146" },
  neck_base_girth: { region: "head", path: "M84 163 C100 176 140 176 156 163" },
  head_girth: { region: "head", path: "M84 60 C96 70 144 70 156 60 C146 52 94 52 84 60Z" },
  head_breadth: { region: "head", path: "M83 74 L157 74", calliper: true },
  head_length: { region: "head", path: "M120 56 L136 40", calliper: true },
  crown_arc: { region: "head", path: "M80 78 C76 26 96 10 120 10 C144 10 164 26 160 78" },
  brow_arc: { region: "head", path: "M90 50 C104 60 136 60 150 50" },
  parting_arc: { region: "head", path: "M120 52 L120 20" },
  ear_rim_upper: { region: "ear", path: "M112 20 L112 42", calliper: true },
  ear_rim_middle: { region: "ear", path: "M148 66 L128 66", calliper: true },
  ear_rim_lower: { region: "ear", path: "M132 112 L114 106", calliper: true },
  finger_girth: { region: "hand", path: "M168 58 C164 64 164 72 168 77 C172 72 172 64 168 58Z" },
  ear_rim_depth: { region: "ear", path: "M150 52 L132 58", calliper: true },
};

export function SiteDrawing({ site, className = "" }: { site: string; className?: string }) {
  const { t } = useTranslation();
  const line = LINES[site];
  if (!line) return null;
  const region = REGIONS[line.region];
  if (!region) return null;
  return (
    <figure className={className}>
      <svg viewBox={region.view} role="img" aria-label={t(`how.${site}`)} className="h-40 w-full">
        {region.body.map((path) => (
          <path
            key={path}
            d={path}
            fill="var(--color-flesh)"
            fillOpacity={0.6}
            stroke="var(--color-muted)"
            strokeWidth={1.5}
          />
        ))}
        <path
          d={line.path}
          fill="none"
          stroke="var(--color-accent)"
          strokeWidth={line.calliper ? 3 : 5}
          strokeLinecap={line.calliper ? "square" : "butt"}
        />
        {!line.calliper && (
          <path
            d={line.path}
            fill="none"
            stroke="var(--color-panel)"
            strokeWidth={1.4}
            strokeDasharray="1.2 3.4"
          />
        )}
      </svg>
      <figcaption className="text-body">
        <strong>{t(`site.${site}`)}.</strong> {t(`how.${site}`)}
      </figcaption>
    </figure>
  );
}
