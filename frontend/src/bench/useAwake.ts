import { useEffect } from "react";

/** Keeps the screen awake while it is looked at, where the browser can. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const hold = async () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      // A browser may refuse, on a low battery for one: then the screen goes to sleep as ever.
      lock = await navigator.wakeLock.request("screen").catch(() => null);
      if (gone) void lock?.release();
    };
    void hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", hold);
      void lock?.release();
    };
  }, []);
}
