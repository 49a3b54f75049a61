export type Theme = "light" | "dark";

const key = "sturdyelbow.theme";

function stored(): Theme | null {
  const t = localStorage.getItem(key);
  return t === "light" || t === "dark" ? t : null;
}

export function currentTheme(): Theme {
  return stored() ?? (matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light");
}

export function setTheme(t: Theme) {
  localStorage.setItem(key, t);
  document.documentElement.dataset.theme = t;
}

/** Follows the system until the builder chooses. */
export function startTheme() {
  document.documentElement.dataset.theme = currentTheme();
  matchMedia("(prefers-color-scheme: dark)").addEventListener("change", () => {
    document.documentElement.dataset.theme = currentTheme();
  });
}
