import { useSyncExternalStore } from "react";

export type Theme = "light" | "dark";

const key = "sturdyelbow.theme";
const listeners = new Set<() => void>();

function stored(): Theme | null {
  const t = localStorage.getItem(key);
  return t === "light" || t === "dark" ? t : null;
}

export function currentTheme(): Theme {
  return stored() ?? (matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light");
}

function apply() {
  document.documentElement.dataset.theme = currentTheme();
  for (const l of listeners) l();
}

export function setTheme(t: Theme) {
  localStorage.setItem(key, t);
  apply();
}

/** Follows the system until the builder chooses. */
export function startTheme() {
  apply();
  matchMedia("(prefers-color-scheme: dark)").addEventListener("change", apply);
}

function listen(l: () => void) {
  listeners.add(l);
  return () => {
    listeners.delete(l);
  };
}

export const useTheme = () => useSyncExternalStore(listen, currentTheme);

function media(query: string) {
  const m = matchMedia(query);
  return {
    listen: (l: () => void) => {
      m.addEventListener("change", l);
      return () => m.removeEventListener("change", l);
    },
    now: () => m.matches,
  };
}

const still = media("(prefers-reduced-motion: reduce)");
const phone = media("(max-width: 34rem)");
const narrow = media("(max-width: 63.99rem)");

/** Whether the builder asked for nothing to move by itself. */
export const useStill = () => useSyncExternalStore(still.listen, still.now);
/** Whether there is room for one hand's width only. */
export const usePhone = () => useSyncExternalStore(phone.listen, phone.now);
/** Whether frame and sheet stand one below the other. */
export const useNarrow = () => useSyncExternalStore(narrow.listen, narrow.now);
