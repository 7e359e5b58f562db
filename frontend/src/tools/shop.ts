import type { ShopTyped, Unit } from "../api/client";
import { asMm } from "../shared/length";

type Typed = string | number;

/**
 * The settings of a bench that changes its unit: bare numbers that were typed in the old one keep
 * what they meant, as millimetres.
 */
export function inUnit(shop: ShopTyped, unit: Unit): ShopTyped {
  const from = shop.unit ?? "mm";
  if (from === unit) return shop;
  const kept = <T>(value: T): T => asMm(value, from) as T;
  const tools = (list: ShopTyped["formers"]) =>
    list?.map((tool) => ({
      ...tool,
      ...(tool.diameters && { diameters: (tool.diameters as Typed[]).map(kept) }),
      ...(tool.tip != null && { tip: kept(tool.tip) }),
      ...(tool.base != null && { base: kept(tool.base) }),
      ...(tool.length != null && { length: kept(tool.length) }),
    }));
  const shelf = shop.shelf?.map((one) => ({
    ...one,
    moves: one.moves?.map((move) => ({
      ...move,
      ...("length" in move && { length: kept(move.length) }),
      ...("pin" in move && { pin: kept(move.pin) }),
    })),
  }));
  const ease = Object.fromEntries(
    Object.entries(shop.ease ?? {}).map(([part, table]) => [
      part,
      {
        ...table,
        fixed_mm: Object.fromEntries(
          Object.entries(table?.fixed_mm ?? {}).map(([word, mm]) => [word, kept(mm)]),
        ),
      },
    ]),
  );
  return {
    ...shop,
    unit,
    ...(shop.formers && { formers: tools(shop.formers) }),
    ...(shop.pins && { pins: tools(shop.pins) }),
    ...(shop.outfit && {
      outfit: {
        ...shop.outfit,
        ...(shop.outfit.punches && { punches: (shop.outfit.punches as Typed[]).map(kept) }),
      },
    }),
    ...(shop.ease && { ease }),
    ...(shelf && { shelf }),
    ...(shop.landmarks && {
      landmarks: shop.landmarks.map((mark) => ({ ...mark, below: kept(mark.below) })),
    }),
    ...(shop.keep_length != null && { keep_length: kept(shop.keep_length) }),
    ...(shop.sold_length != null && { sold_length: kept(shop.sold_length) }),
  };
}
