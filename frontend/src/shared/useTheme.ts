import { useEffect, useState } from "react";

export type Theme = "light" | "dark";
const KEY = "jamreel.theme";

function preferred(): Theme {
  const kept = localStorage.getItem(KEY);
  if (kept === "light" || kept === "dark") return kept;
  return matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
}

/** The theme in force, and a way to change it that is remembered on this device. */
export function useTheme() {
  const [theme, setTheme] = useState<Theme>(preferred);
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  const change = (next: Theme) => {
    localStorage.setItem(KEY, next);
    setTheme(next);
  };
  return { theme, change };
}
