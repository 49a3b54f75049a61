import type { Project } from "../../api/client";

export type Page = NonNullable<Project["page"]>;
export type Line = Page["lines"][number];

/** The lines of a page with those of a text after the ones that are drawn; those that wait stay behind them. */
export function withMore(page: Page | undefined, text: string): Line[] {
  const drawn = page?.drawn ?? 0;
  const all = page?.lines ?? [];
  const more = text
    .replace(/\s+$/, "")
    .split(/\r?\n/)
    .map((t) => ({ text: t.trim() }));
  return [...all.slice(0, drawn), ...more, ...all.slice(drawn)];
}
