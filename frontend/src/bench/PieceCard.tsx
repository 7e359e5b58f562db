import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { useForm, useWatch } from "react-hook-form";
import { api, ask, type Piece } from "../api/client";
import { queries } from "../api/queries";
import { usePutAway } from "../shared/useArchive";
import { sideOf } from "../piece/side";
import { Button } from "../shared/Button";
import { Select } from "../shared/Select";
import { Problem, TextField } from "../shared/TextField";

interface Props {
  piece: Piece;
  take: (piece: Piece) => void;
}

/** What the piece is called, for whom and by when; opens to be changed. */
export function PieceCard({ piece, take }: Props) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  const made = piece.plan ? `${piece.plan.says} · ${piece.plan.wire} ${piece.plan.metal}` : "";
  const who = piece.wearer ? t("piece.for", { name: piece.wearer.name }) : "";
  const { kinds = [] } = useQuery(queries.facts()).data ?? {};
  const brief = piece.brief;
  const part = kinds.find((one) => one.kind === brief.piece?.kind)?.worn_on ?? "";
  const side = brief.side && brief.side !== "either" ? sideOf(t, part, brief.side) : "";
  const said = [[who, side].filter(Boolean).join(", "), made].filter(Boolean).join(" · ");
  return (
    <div className="mr-auto min-w-0">
      <h1 className="text-title leading-tight break-words">{piece.name}</h1>
      <div className="flex items-center gap-x-3 text-body">
        {said && <span className="truncate text-muted">{said}</span>}
        <button
          type="button"
          aria-expanded={open}
          className="-my-2 min-h-[44px] shrink-0 underline underline-offset-4"
          onClick={() => setOpen(!open)}
        >
          {t(open ? "piece.close_card" : "piece.card")}
        </button>
      </div>
      {open && <CardForm piece={piece} take={take} onDone={() => setOpen(false)} />}
    </div>
  );
}

function CardForm({ piece, take, onDone }: Props & { onDone: () => void }) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const wearers = useQuery(queries.wearers()).data ?? [];
  const { register, handleSubmit, setValue, control } = useForm({
    defaultValues: {
      name: piece.name,
      due: piece.due ?? "",
      wearer: piece.wearer ? String(piece.wearer.id) : "",
    },
  });
  const wearer = useWatch({ control, name: "wearer" });
  const path = { params: { path: { piece_id: piece.id } } };
  const save = useMutation({
    meta: { shown: true },
    mutationFn: (typed: { name: string; due: string; wearer: string }) =>
      ask(
        api.PUT("/api/pieces/{piece_id}/card", {
          ...path,
          body: {
            name: typed.name,
            due: typed.due || null,
            wearer_id: typed.wearer ? Number(typed.wearer) : null,
          },
        }),
      ),
    onSuccess: (changed) => {
      take(changed);
      onDone();
    },
  });
  const putAway = usePutAway(() => void navigate("/"));
  return (
    <form
      className="flex flex-wrap items-end gap-3 py-2"
      onSubmit={handleSubmit((typed) => save.mutate(typed))}
    >
      <TextField label={t("piece.name")} className="w-56" {...register("name")} />
      <TextField label={t("piece.due")} type="date" className="w-44" {...register("due")} />
      <Select
        label={t("piece.wearer")}
        className="w-56"
        value={wearer}
        options={[
          { value: "", label: t("piece.nobody") },
          ...wearers.map((one) => ({ value: String(one.id), label: one.name })),
        ]}
        onChoose={(chosen) => setValue("wearer", chosen)}
      />
      <Button type="submit" look="strong">
        {t("piece.save_card")}
      </Button>
      <Button
        look="quiet"
        onClick={() => putAway.mutate({ what: "piece", id: piece.id, name: piece.name })}
      >
        {t("piece.put_away")}
      </Button>
      <Problem says={save.error?.message} />
    </form>
  );
}
