import { expect, it } from "vitest";

import { nearest } from "./gauges";

it("says the nearest gauges with their diameters in the maker's unit", () => {
  const found = {
    awg: { number: 20, diameter_mm: 0.8118 },
    swg: { number: 21, diameter_mm: 0.8128 },
  };
  expect(nearest(found, "mm")).toEqual({ awg: "20 AWG (0.81)", swg: "21 SWG (0.81)" });
  expect(nearest(found, "in")).toEqual({ awg: "20 AWG (0.032)", swg: "21 SWG (0.032)" });
});
