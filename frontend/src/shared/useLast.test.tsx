// @vitest-environment jsdom
import { renderHook } from "@testing-library/react";
import { expect, test } from "vitest";
import { useLast } from "./useLast";

test("the last value stays while there is none", () => {
  const { result, rerender } = renderHook(({ value }) => useLast(value), {
    initialProps: { value: null as string | null },
  });
  expect(result.current).toBeNull();
  rerender({ value: "first" });
  rerender({ value: null });
  expect(result.current).toBe("first");
  rerender({ value: "second" });
  expect(result.current).toBe("second");
});
