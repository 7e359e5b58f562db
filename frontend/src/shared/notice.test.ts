import { describe, expect, it, vi } from "vitest";

import { notice } from "./notice";

describe("the notice at the foot of the page", () => {
  it("offers to undo until something else is said", () => {
    const heard = vi.fn();
    const leave = notice.subscribe(heard);
    const back = vi.fn();
    notice.offer("Put away.", { says: "Undo", do: back });
    notice.snapshot().undo?.do();
    expect(back).toHaveBeenCalledOnce();
    notice.say("No such piece.");
    expect(notice.snapshot()).toEqual({ says: "No such piece." });
    notice.say("");
    expect(notice.snapshot().says).toBe("");
    expect(heard).toHaveBeenCalledTimes(3);
    leave();
  });
});
