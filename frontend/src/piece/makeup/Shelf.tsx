import { useTranslation } from "react-i18next";
import type { Facts, ShopView } from "../../api/client";
import { PartPicture } from "../../shared/drawings/PartPicture";
import type { Part } from "../sequence";
import { Button } from "../../shared/Button";

interface Props {
  parts: Facts["parts"];
  shop: ShopView;
  colour: string;
  onPick: (part: Part) => void;
  onClose: () => void;
}

const ROLES = ["link", "strung", "drop"] as const;

/** The shelf: every part by how it joins its neighbours, and links of the maker's own. */
export function Shelf({ parts, shop, colour, onPick, onClose }: Props) {
  const { t } = useTranslation();
  const own = shop.shop.shelf ?? [];
  return (
    <section aria-label={t("sequence.shelf")} className="space-y-3">
      <div className="flex items-center justify-between">
        <h2 className="text-lead">{t("sequence.shelf")}</h2>
        <Button look="quiet" onClick={onClose}>
          {t("sequence.close_shelf")}
        </Button>
      </div>
      {ROLES.map((role) => (
        <div key={role}>
          <h3 className="border-b hairline pb-0.5 text-body">{t(`sequence.role.${role}`)}</h3>
          <ul className="grid grid-cols-2">
            {parts
              .filter((part) => part.role === role)
              .map((part) => (
                <li key={part.kind}>
                  <button
                    type="button"
                    className="flex min-h-[48px] w-full items-center gap-2 text-left text-small leading-tight hover:bg-tint"
                    title={part.help}
                    onClick={() => onPick({ kind: part.kind })}
                  >
                    <PartPicture strokes={part.strokes} colour={colour} width={66} height={42} />
                    {part.says}
                  </button>
                </li>
              ))}
          </ul>
        </div>
      ))}
      {own.length > 0 && (
        <div>
          <h3 className="border-b hairline pb-0.5 text-body">{t("sequence.role.own")}</h3>
          <ul className="flex flex-wrap gap-1.5 pt-1.5">
            {own.map((part, i) => (
              <li key={i}>
                <Button onClick={() => onPick({ ...part, kind: "own_link" })}>
                  {part.name || t("sequence.unnamed")}
                </Button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}
