import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask } from "../api/client";
import { queries } from "../api/queries";
import { useUnit } from "../shared/useUnit";
import { nearest } from "./gauges";
import { lengthText } from "../shared/length";
import { Button } from "../shared/Button";
import { Problem, TextField } from "../shared/TextField";

const CELL = "border-b hairline py-0.5 text-right figures";

/** What a size is called, what passes a hole, and both gauge systems side by side. */
export function GaugeSense() {
  const { t } = useTranslation();
  const rows = useQuery(queries.gauges()).data ?? [];
  const rack = useQuery(queries.rack()).data?.stock ?? [];
  const unit = useUnit();
  const [size, setSize] = useState("");
  const [hole, setHole] = useState("");
  const sense = useMutation({
    meta: { shown: true },
    mutationFn: () => ask(api.POST("/api/gauges/sense", { body: { size, hole } })),
  });
  const found = sense.data;
  const cell = CELL;
  const units = unit === "mm" ? "mm · in" : "in · mm";
  const mine = (mm: number) =>
    rack.some((one) => one.awg && Math.abs((one.diameter_mm ?? 0) - mm) < 0.006);
  return (
    <div className="space-y-3">
      <h2 className="text-lead">{t("gauges.title")}</h2>
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          sense.mutate();
        }}
      >
        <TextField
          label={t("gauges.size")}
          className="grow [&_input]:figures"
          placeholder={unit === "mm" ? "0.9 mm" : "0.036 in"}
          value={size}
          onText={setSize}
        />
        <TextField
          label={t("gauges.hole")}
          className="w-24 [&_input]:figures"
          placeholder={unit === "mm" ? "1 mm" : "0.04 in"}
          value={hole}
          onText={setHole}
        />
        <Button type="submit" disabled={!size}>
          {t("gauges.ask")}
        </Button>
      </form>
      <Problem says={sense.error instanceof ApiError ? sense.error.details.detail : undefined} />
      {found && (
        <p className="leading-snug">
          <span className="figures font-semibold">
            {lengthText(found.diameter_mm, unit, 3, "decimals")} {unit}
          </span>{" "}
          {t("gauges.near", nearest(found, unit))}
          {found.through && (
            <span className="block">
              {t("gauges.through", { count: found.through.wires, hole })}
            </span>
          )}
        </p>
      )}
      <table className="w-full text-body">
        <thead className="text-small text-muted">
          <tr>
            <th scope="col" className="py-0.5 text-left font-normal">
              {t("gauges.number")}
            </th>
            <th scope="col" className={`${cell} font-normal`} colSpan={2}>
              AWG, {units}
            </th>
            <th scope="col" className={`${cell} font-normal`} colSpan={2}>
              SWG, {units}
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.number}>
              <th scope="row" className="border-b hairline py-0.5 text-left figures">
                {row.number}
              </th>
              <Sizes mm={row.awg_mm} mine={mine(row.awg_mm)} />
              <Sizes mm={row.swg_mm} mine={mine(row.swg_mm)} />
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-small text-muted">{t("gauges.mine")}</p>
    </div>
  );
}

/** A diameter in the maker's unit, and beside it in the other. */
function Sizes({ mm, mine }: { mm: number; mine: boolean }) {
  const unit = useUnit();
  const other = unit === "mm" ? "in" : "mm";
  return (
    <>
      <td className={`${CELL} ${mine ? "bg-tint font-bold" : ""}`}>
        {lengthText(mm, unit, 2, "decimals")}
      </td>
      <td className={`${CELL} text-muted`}>{lengthText(mm, other, 2, "decimals")}</td>
    </>
  );
}
