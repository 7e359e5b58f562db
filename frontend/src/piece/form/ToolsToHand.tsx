import { Fragment } from "react";
import { useTranslation } from "react-i18next";
import type { Plan } from "../../api/client";
import { Column } from "../../shared/Column";
import { Figure } from "../../shared/Figure";

type Tool = NonNullable<Plan["tools"]>[number];

/** What lies to hand before the piece is begun, and what the bench lacks. */
export function ToolsToHand({ tools }: { tools: readonly Tool[] }) {
  const { t } = useTranslation();
  const [there, lacking] = [tools.filter((one) => !one.lacks), tools.filter((one) => one.lacks)];
  if (tools.length === 0) return null;
  return (
    <section className="mb-4">
      <h2 className="mb-1 text-lead">{t("form.tools")}</h2>
      <Column of={tools.flatMap((one) => one.sizes_mm ?? [])}>
        <ul className="flex flex-wrap gap-1.5">
          {there.map((one) => (
            <li key={one.says} className="border hairline bg-panel px-2 py-1 leading-snug">
              <Named tool={one} />
            </li>
          ))}
        </ul>
        {lacking.length > 0 && (
          <p className="mt-1.5 border-l-4 border-ink pl-3 leading-snug">
            <strong>{t("form.lacks")}</strong>{" "}
            {lacking.map((one, n) => (
              <Fragment key={`${one.says} ${n}`}>
                {n > 0 && " · "}
                <Named tool={one} />
              </Fragment>
            ))}
          </p>
        )}
      </Column>
    </section>
  );
}

function Named({ tool }: { tool: Tool }) {
  const sizes = tool.sizes_mm ?? [];
  return (
    <>
      {tool.says}
      {sizes.map((mm, n) => (
        <Fragment key={mm}>
          {n > 0 ? ", " : " "}
          <Figure mm={mm} unit={n === sizes.length - 1} />
        </Fragment>
      ))}
    </>
  );
}
