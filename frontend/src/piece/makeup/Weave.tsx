import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ask, type Plan } from "../../api/client";
import { queries } from "../../api/queries";
import { useBefore } from "../useBefore";
import { WovenView } from "../../shared/drawings/WovenView";
import { Button, buttonLook } from "../../shared/Button";
import { distances, fromMiddle } from "../woven";
import { Figure } from "../../shared/Figure";
import { Problem, TextField } from "../../shared/TextField";

type Body = NonNullable<Plan["woven"]>[number];

interface Props {
  body: Body;
  pieceId: number;
  version: number;
}

/** A woven body: its rows, as it lies in space, and how far a wire goes. */
export function Weave({ body, pieceId, version }: Props) {
  const { t } = useTranslation();
  const entry = body.entry.split("~")[0] ?? "";
  const before = useBefore();
  const { data: shown } = useQuery({
    ...queries.woven(pieceId, version, entry),
    enabled: !before,
  });
  // What is bound has no rows to count, and no wire that goes along it row by row.
  const rows = body.wires.length > 0;
  return (
    <section className="space-y-3" aria-label={t("weave.name", { what: body.label })}>
      <h2 className="text-lead first-letter:uppercase">
        {body.label}
        {rows && (
          <>
            : <span className="figures">{body.rows}</span> {body.rows_name}
          </>
        )}
      </h2>
      {shown ? (
        <WovenView key={`${entry} ${body.rows}`} shown={shown} start={body.rows} />
      ) : (
        <p className="flex h-[300px] items-center justify-center border hairline bg-panel text-muted">
          {t("weave.pulled")}
        </p>
      )}
      <dl className="grid grid-cols-2 gap-x-5 gap-y-1 text-body laptop:grid-cols-4">
        {rows && (
          <Fact says={t("weave.a_row", { row: body.row_name })} mm={body.pitch_mm} places={2} />
        )}
        <Fact says={t("weave.wide")} mm={body.width_mm} />
        <Fact says={t("weave.thick")} mm={body.thickness_mm} />
        {distances(body.pegs_mm).map((mm, i) => (
          <Fact key={i} says={t("weave.pegs", { count: body.pegs_mm.length })} mm={mm} />
        ))}
      </dl>
      {rows && (
        <>
          <Wires body={body} />
          <Sample body={body} pieceId={pieceId} />
          <GoesSoFar body={body} pieceId={pieceId} version={version} entry={entry} />
        </>
      )}
      {body.marks_mm && body.marks_mm.length > 0 && (
        <p className="text-body">
          {t("weave.marks")}{" "}
          {fromMiddle(body.marks_mm, body.rows * body.pitch_mm).map((mm) => (
            <Figure key={mm} mm={mm} unit className="mr-3 font-semibold" />
          ))}
        </p>
      )}
      {(rows || (body.marks_mm ?? []).length > 0) && (
        <a
          className={buttonLook("plain")}
          href={`/api/pieces/${pieceId}/board.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          {t("weave.board")}
        </a>
      )}
    </section>
  );
}

function Fact({ says, mm, places }: { says: string; mm: number; places?: number }) {
  return (
    <div>
      <dt className="text-muted">{says}</dt>
      <dd className="text-lead font-semibold">
        <Figure mm={mm} unit {...(places ? { places } : {})} />
      </dd>
    </div>
  );
}

/** What a row takes of every working wire, and after which rows the next one joins. */
function Wires({ body }: { body: Body }) {
  const { t } = useTranslation();
  return (
    <ul className="text-body">
      {body.wires.map((wire) => {
        const takes = wire.takes_mm.reduce((sum, one) => sum + one, 0) / wire.takes_mm.length;
        const joins = wire.starts_after.filter((row) => row > 0);
        return (
          <li key={wire.id}>
            {wire.count > 1 && <span className="figures">{wire.count} × </span>}
            {wire.label}: <Figure mm={takes} unit className="font-semibold" />{" "}
            {t("weave.in_a_row", { row: body.row_name })}
            {wire.spare > 1 && (
              <>
                {", "}
                {t("weave.spare", { times: wire.spare })}
              </>
            )}
            {joins.length > 0 && (
              <>
                {". "}
                {t("weave.joins", { row: body.row_name, rows: joins.join(", ") })}
              </>
            )}
          </li>
        );
      })}
    </ul>
  );
}

/** Where its pitch and tightness come from, and the bench's own sample: to keep, or to forget. */
function Sample({ body, pieceId }: Pick<Props, "body" | "pieceId">) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const keep = useMutation({
    meta: { shown: true },
    mutationFn: (kept: boolean) => {
      const params = { path: { piece_id: pieceId } };
      const sent = { params, body: { entry: body.entry.split("~")[0] ?? "", kept } };
      return ask(api.POST("/api/pieces/{piece_id}/woven/sample", sent));
    },
    onSuccess: () => client.invalidateQueries(),
  });
  if (!body.sampled) return <p className="text-body text-muted">{t("weave.no_sample")}</p>;
  const own = body.sampled === "piece";
  return (
    <div className="flex flex-wrap items-center gap-3">
      <p className="text-body">{t(own ? "weave.own_sample" : "weave.kept_sample")}</p>
      <Button look={own ? "strong" : "quiet"} onClick={() => keep.mutate(own)}>
        {t(own ? "weave.keep" : "weave.forget")}
      </Button>
      {keep.isSuccess && own && <span role="status">{t("weave.kept")}</span>}
      {keep.error && <Problem says={keep.error.message} />}
    </div>
  );
}

/** Asked the other way round: so much wire is there, how far does it go. */
function GoesSoFar({ body, pieceId, version, entry }: Props & { entry: string }) {
  const { t } = useTranslation();
  const [typed, type] = useState("");
  const { data, error } = useQuery({
    ...queries.goes(pieceId, version, entry, typed.trim()),
    enabled: typed.trim() !== "",
  });
  const problem = typed.trim() && error ? error.message : undefined;
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-1">
      <TextField
        label={t("weave.goes")}
        className="w-48 [&_input]:figures"
        inputMode="decimal"
        placeholder="1500"
        value={typed}
        problem={problem}
        onText={type}
      />
      {typed.trim() && data && !problem && (
        <p role="status" className="pb-2.5">
          <strong className="figures text-lead">{data.rows}</strong> {body.rows_name},{" "}
          <Figure mm={data.long_mm} unit className="font-semibold" />
          {data.rows < body.rows && data.starts_after.length === 1
            ? `. ${t("weave.stops")}`
            : data.rows < body.rows
              ? `. ${t("weave.then_joins", { count: data.wires, row: body.row_name, rows: data.starts_after.slice(1).join(", ") })}`
              : `. ${t("weave.enough")} `}
          {data.rows >= body.rows && <Figure mm={data.left_mm} unit />}
        </p>
      )}
    </div>
  );
}
