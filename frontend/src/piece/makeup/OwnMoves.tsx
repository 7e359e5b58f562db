import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import {
  api,
  ask,
  type Facts,
  type FieldProblem,
  type ShopView,
  type Unit,
} from "../../api/client";
import { asNumber, asText } from "../draft";
import { typedLength } from "../../shared/length";
import { listIn, type Part } from "../sequence";
import { capital } from "../../shared/capital";
import { Button } from "../../shared/Button";
import { Select } from "../../shared/Select";
import { Problem, TextField } from "../../shared/TextField";
import { problemAt } from "../context";

interface Props {
  /** A link of the maker's own, or a hook. */
  part: Part;
  defaults?: Record<string, unknown>;
  facts: Facts;
  shop: ShopView;
  /** The unit that a bare number is read in. */
  unit: Unit;
  at: string;
  problems: readonly FieldProblem[];
  onPart: (part: Part) => void;
}

type Move = Record<string, unknown>;
/** Which figures a move needs. */
const NEEDS: Record<string, readonly string[]> = {
  straight: ["length"],
  bend: ["degrees", "pin", "side"],
  corner: ["degrees", "side"],
  fold: ["side"],
  spiral: ["turns", "pin", "side"],
  wrap: ["turns", "pin", "side"],
  turn: ["degrees"],
  flatten: ["length"],
  mark: [],
};

/** A shape of the maker's own, move by move along the wire. */
export function OwnMoves({ part, defaults, facts, shop, unit, at, problems, onPart }: Props) {
  const { t } = useTranslation();
  const moves = listIn<Move>(part.moves ?? defaults?.moves);
  const kept = (shop.typed.shelf ?? []).filter((one) => one.name);
  const isPart = facts.parts.some((one) => one.kind === part.kind);
  const set = (next: Move[]) => onPart({ ...part, moves: next });
  return (
    <div className="space-y-2">
      <TextField
        label={t("sequence.own_name")}
        value={asText(part.name)}
        onText={(name) => onPart({ ...part, name })}
      />
      {!isPart && kept.length > 0 && (
        <Select
          label={t("sequence.from_shelf")}
          value=""
          options={[
            { value: "", label: "–" },
            ...kept.map((one, i) => ({ value: String(i), label: asText(one.name) })),
          ]}
          onChoose={(i) => {
            const one = kept[Number(i)];
            if (i !== "" && one) onPart({ ...part, name: one.name, moves: one.moves });
          }}
        />
      )}
      <ol className="border-t hairline">
        {moves.map((move, i) => (
          <li key={i} className="flex flex-wrap items-end gap-2 border-b hairline py-1.5">
            <OneMove
              move={move}
              facts={facts}
              unit={unit}
              at={`${at}.moves.${i}`}
              problems={problems}
              onMove={(next) => set(moves.map((old, n) => (n === i ? next : old)))}
            />
            <Button
              look="quiet"
              className="!px-2"
              aria-label={t("sequence.drop_move", { n: i + 1 })}
              disabled={moves.length < 2}
              onClick={() => set(moves.filter((_, n) => n !== i))}
            >
              ×
            </Button>
          </li>
        ))}
      </ol>
      <Problem says={problemAt(problems, `${at}.moves`)} />
      <div className="flex gap-2">
        <Button onClick={() => set([...moves, { move: "straight", length: 5 }])}>
          {t("sequence.add_move")}
        </Button>
        <KeepOnShelf part={asLink(part, moves, facts)} shop={shop} />
      </div>
    </div>
  );
}

/** What goes on the shelf: the shape itself, whether it was made as a link or as a hook. */
function asLink(part: Part, moves: Move[], facts: Facts): Part {
  const own = facts.parts.find((one) => "moves" in one.defaults)?.kind ?? part.kind;
  return part.kind === own ? { ...part, moves } : { kind: own, name: part.name, moves };
}

interface MoveProps {
  move: Move;
  facts: Facts;
  unit: Unit;
  at: string;
  problems: readonly FieldProblem[];
  onMove: (move: Move) => void;
}

function OneMove({ move, facts, unit, at, problems, onMove }: MoveProps) {
  const kind = asText(move.move) || "straight";
  const write = (length: boolean, value: unknown) =>
    length ? typedLength(value, unit) : asText(value);
  return facts.moves
    .filter((choice) => choice.name === "move" || (NEEDS[kind] ?? []).includes(choice.name))
    .map((choice) =>
      choice.type === "option" ? (
        <Select
          key={choice.name}
          label={capital(choice.says)}
          className={choice.name === "move" ? "w-36" : "w-24"}
          value={asText(move[choice.name] ?? choice.default)}
          options={(choice.options ?? []).map((value, i) => ({
            value,
            label: choice.labels?.[i] ?? value,
          }))}
          onChoose={(value) => onMove({ ...move, [choice.name]: value })}
        />
      ) : (
        <TextField
          key={choice.name}
          label={capital(choice.says)}
          className="w-20 [&_input]:figures"
          inputMode="decimal"
          placeholder={write(choice.type === "length", choice.default)}
          value={write(choice.type === "length", move[choice.name])}
          problem={problemAt(problems, `${at}.${choice.name}`)}
          onText={(text) =>
            onMove({ ...move, [choice.name]: choice.type === "length" ? text : asNumber(text) })
          }
        />
      ),
    );
}

/** Puts the shape among the parts of this bench, for every piece to come. */
function KeepOnShelf({ part, shop }: { part: Part; shop: ShopView }) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const typed = shop.typed;
  const others = (typed.shelf ?? []).filter((one) => one.name !== part.name);
  const kept = (typed.shelf ?? []).some((one) => JSON.stringify(one) === JSON.stringify(part));
  const keep = useMutation({
    meta: { shown: true },
    mutationFn: () =>
      ask(
        api.PUT("/api/shop", {
          body: {
            version: shop.version,
            shop: { ...shop.typed, shelf: [...others, { ...part, kind: "own_link" }] },
          },
        }),
      ),
    onSuccess: (view) => client.setQueryData(["shop"], view),
  });
  return (
    <>
      <Button disabled={!part.name || kept || keep.isPending} onClick={() => keep.mutate()}>
        {t(kept ? "sequence.on_shelf" : "sequence.keep_on_shelf")}
      </Button>
      <Problem says={keep.error?.message} />
    </>
  );
}
