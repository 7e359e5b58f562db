import { useQuery } from "@tanstack/react-query";
import type { Unit } from "../api/client";
import { queries } from "../api/queries";

/** The unit in which lengths are shown: the workshop's. */
export function useUnit(): Unit {
  const { data } = useQuery(queries.shop());
  return data?.shop.unit === "in" ? "in" : "mm";
}
