import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useNavigate } from "react-router";
import { api, ApiError, ask, type Wearer } from "../api/client";
import { queries } from "../api/queries";
import { usePutAway } from "../shared/useArchive";
import { useKept } from "../shared/useKept";
import { sameReadings } from "./readings";
import { useUnit } from "../shared/useUnit";
import { BodyFigure } from "./BodyFigure";
import { SiteDrawing } from "./SiteDrawing";
import { ReadingFields } from "./ReadingFields";
import { KindSelect, startOf } from "../piece/PieceChoices";
import { Button } from "../shared/Button";
import { Select } from "../shared/Select";
import { Problem } from "../shared/TextField";

/** One wearer: readings to take, what was read before, and the pieces that wait for them. */
export function WearerPage({ wearer }: { wearer: Wearer }) {
  const { t } = useTranslation();
  const facts = useQuery(queries.facts()).data;
  const [site, setSite] = useState("wrist_girth");
  const navigate = useNavigate();
  const away = usePutAway(() => void navigate("/wearers"));
  const sites = facts?.sites.map((one) => one.id) ?? [];
  return (
    <div className="space-y-5">
      <header>
        <h2 className="text-title break-words">{wearer.name}</h2>
        <p className="text-muted">
          {[wearer.part, wearer.is_child && t("wearers.child")].filter(Boolean).join(" · ")}
        </p>
        {wearer.note && <p className="mt-1">{wearer.note}</p>}
      </header>
      <div className="grid grid-cols-1 gap-5 wide:grid-cols-[290px_1fr]">
        <BodyFigure wearer={wearer} sites={sites} />
        <div className="space-y-3">
          <Select
            label={t("wearers.site")}
            value={site}
            options={sites.map((one) => ({ value: one, label: t(`site.${one}`) }))}
            onChoose={setSite}
          />
          <SiteDrawing site={site} />
          <SiteForm key={site} wearer={wearer} site={site} />
        </div>
      </div>
      {wearer.problems.map((problem) => (
        <Problem key={problem.field} says={problem.says} />
      ))}
      <Pieces wearer={wearer} />
      <ReadingHistory wearer={wearer} />
      <Button onClick={() => away.mutate({ what: "wearer", id: wearer.id, name: wearer.name })}>
        {t("archive.put_away")}
      </Button>
    </div>
  );
}

function SiteForm({ wearer, site }: { wearer: Wearer; site: string }) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const unit = useUnit();
  const facts = useQuery(queries.facts()).data;
  const kept = wearer.measures[site]?.readings ?? [];
  const typed = useKept(`reading.${wearer.id}.${site}`, () => kept);
  const keep = useMutation({
    meta: { shown: true },
    mutationFn: () =>
      ask(
        api.PUT("/api/wearers/{wearer_id}/readings", {
          params: { path: { wearer_id: wearer.id } },
          body: { site, readings: typed.value },
        }),
      ),
    onSuccess: () => {
      typed.forget();
      return client.invalidateQueries({ queryKey: ["wearers"] });
    },
  });
  const says = keep.error instanceof ApiError ? keep.error.details.detail : undefined;
  if (!facts) return null;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <fieldset>
        <legend className="sr-only">{t(`site.${site}`)}</legend>
        <ReadingFields
          site={site}
          readings={typed.value}
          facts={facts}
          unit={unit}
          askPosture
          narrow
          onChange={typed.change}
        />
        <Button
          type="submit"
          className="mt-2 w-full"
          disabled={sameReadings(typed.value, kept) || keep.isPending}
        >
          {t("wearers.keep")}
        </Button>
        <Problem says={says} />
      </fieldset>
    </form>
  );
}

function Pieces({ wearer }: { wearer: Wearer }) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const facts = useQuery(queries.facts()).data;
  const [picked, setKind] = useState("");
  const kind = picked || (facts?.kinds[0]?.kind ?? "");
  const chosen = facts && startOf(facts, kind);
  const start = useMutation({
    mutationFn: () =>
      ask(
        api.POST("/api/pieces", {
          body: {
            name: t("wearers.piece_name", {
              name: wearer.name.split(" ")[0],
              piece: chosen?.says,
            }),
            wearer_id: wearer.id,
            brief: { piece: chosen?.piece ?? { kind }, wire: chosen?.wire ?? { size: "" } },
          },
        }),
      ),
    onSuccess: (piece) => navigate(`/pieces/${piece.id}/measure`),
  });
  return (
    <section>
      <h3 className="border-b border-ink font-bold">{t("wearers.pieces")}</h3>
      <ul>
        {wearer.pieces.map((piece) => (
          <li key={piece.id} className="border-b hairline">
            <Link
              className="flex min-h-[44px] items-center justify-between hover:underline"
              to={`/pieces/${piece.id}/measure`}
            >
              {piece.name}
              <span className="text-small text-muted">{t(`waits.${piece.waits_for}`)}</span>
            </Link>
          </li>
        ))}
      </ul>
      {facts && (
        <div className="mt-2 flex items-end gap-2">
          <KindSelect
            label={t("wearers.what")}
            className="grow"
            facts={facts}
            value={kind}
            onChoose={setKind}
          />
          <Button onClick={() => start.mutate()}>{t("wearers.start")}</Button>
        </div>
      )}
    </section>
  );
}

function ReadingHistory({ wearer }: { wearer: Wearer }) {
  const { t } = useTranslation();
  if (wearer.readings.length === 0) return null;
  return (
    <section>
      <h3 className="border-b border-ink font-bold">{t("wearers.history")}</h3>
      <table className="w-full text-body">
        <tbody>
          {wearer.readings.map((reading, i) => (
            <tr key={i} className={`border-b hairline ${reading.replaced ? "text-muted" : ""}`}>
              <td className="py-1">{t(`site.${reading.site}`)}</td>
              <td className="figures text-right">{reading.typed["value"]}</td>
              <td className="pl-3">
                {[
                  t(`method.${reading.typed["method"]}`),
                  reading.typed["thickness"] &&
                    t("measure.so_thick", { thickness: reading.typed["thickness"] }),
                  reading.typed["ease"] && t("measure.so_easy", { ease: reading.typed["ease"] }),
                  reading.typed["posture"],
                ]
                  .filter(Boolean)
                  .join(", ")}
              </td>
              <td className="text-right">
                {new Date(reading.typed["taken"] ?? "").toLocaleString("en-GB", {
                  day: "numeric",
                  month: "short",
                  hour: "2-digit",
                  minute: "2-digit",
                })}
              </td>
              <td className="pl-3">{reading.replaced && t("wearers.replaced")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
