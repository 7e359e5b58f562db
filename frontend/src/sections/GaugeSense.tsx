import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask } from "../api/client";
import { queries } from "../api/queries";
import { Button } from "../ui/Button";
import { Problem, TextField } from "../ui/TextField";

/** What a size is called, what passes a hole, and both gauge systems side by side. */
export function GaugeSense() {
  const { t } = useTranslation();
  const rows = useQuery(queries.gauges()).data ?? [];
  const rack = useQuery(queries.rack()).data?.stock ?? [];
  const [size, setSize] = useState("");
  const [hole, setHole] = useState("");
  const sense = useMutation({
    mutationFn: () => ask(api.POST("/api/gauges/sense", { body: { size, hole } })),
  });
  const found = sense.data;
  const cell = "border-b hairline py-0.5 text-right figures";
  const mine = (mm: number) =>
    rack.some((one) => one.awg && Math.abs((one.diameter_mm ?? 0) - mm) < 0.006);
  return (
    <div className="space-y-3">
      <h2 className="text-lg">{t("gauges.title")}</h2>
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
          placeholder="0.9 mm"
          value={size}
          onText={setSize}
        />
        <TextField
          label={t("gauges.hole")}
          className="w-24 [&_input]:figures"
          placeholder="1 mm"
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
          <span className="figures font-semibold">{found.diameter_mm.toFixed(3)} mm</span>{" "}
          {t("gauges.near", {
            awg: `${found.awg.number} AWG (${found.awg.diameter_mm.toFixed(2)})`,
            swg: `${found.swg.number} SWG (${found.swg.diameter_mm.toFixed(2)})`,
          })}
          {found.through && (
            <span className="block">
              {t("gauges.through", { count: found.through.wires, hole })}
            </span>
          )}
        </p>
      )}
      <table className="w-full text-[15px]">
        <thead className="text-sm text-muted">
          <tr>
            <th scope="col" className="py-0.5 text-left font-normal">
              {t("gauges.number")}
            </th>
            <th scope="col" className={`${cell} font-normal`} colSpan={2}>
              AWG, mm · in
            </th>
            <th scope="col" className={`${cell} font-normal`} colSpan={2}>
              SWG, mm · in
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.number}>
              <th scope="row" className="border-b hairline py-0.5 text-left figures">
                {row.number}
              </th>
              <td className={`${cell} ${mine(row.awg_mm) ? "bg-tint font-bold" : ""}`}>
                {row.awg_mm.toFixed(2)}
              </td>
              <td className={`${cell} text-muted`}>{row.awg_in.toFixed(3)}</td>
              <td className={`${cell} ${mine(row.swg_mm) ? "bg-tint font-bold" : ""}`}>
                {row.swg_mm.toFixed(2)}
              </td>
              <td className={`${cell} text-muted`}>{row.swg_in.toFixed(3)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[14px] text-muted">{t("gauges.mine")}</p>
    </div>
  );
}
