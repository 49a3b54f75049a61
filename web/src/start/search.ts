import type { Starter } from "../api/client";

/** Words that say nothing of what is wanted. */
const small = new Set("a an the to of for with and or on in at up off it is that my i some one want need something hold".split(" "));

const wordsOf = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/** Two words that are one, but for an ending: wheel and wheels. */
const alike = (a: string, b: string) => a.startsWith(b) || (b.length > 3 && b.startsWith(a) && a.length > 3);

/** How well a starter answers to what is wanted: how many of the words are in it. */
function score(s: Starter, wanted: string[]): number {
  const name = wordsOf(s.name);
  const rest = wordsOf(`${s.about} ${s.for} ${s.words}`);
  return wanted.reduce((n, w) => n + (name.some((x) => alike(x, w)) ? 3 : rest.some((x) => alike(x, w)) ? 2 : 0), 0);
}

/** The starters that answer to a builder's words, the best first; all of them for none. */
export function matching(all: Starter[], text: string): Starter[] {
  const said = wordsOf(text);
  const wanted = said.filter((w) => !small.has(w));
  const words = wanted.length > 0 ? wanted : said;
  if (words.length === 0) return all;
  const scored = all.map((s) => ({ s, n: score(s, words) })).filter((x) => x.n > 0);
  const best = Math.max(0, ...scored.map((x) => x.n));
  return scored
    .filter((x) => x.n * 2 > best)
    .sort((a, b) => b.n - a.n)
    .map((x) => x.s);
}

/** The starters by what they are for, in their order; the builder's own first. */
export function groupsOf(all: Starter[]): [string, Starter[]][] {
  const groups = new Map<string, Starter[]>();
  for (const s of all) {
    const name = s.id.startsWith("own:") ? "Your own" : s.for;
    groups.set(name, [...(groups.get(name) ?? []), s]);
  }
  return [...groups].sort(([a], [b]) => Number(b === "Your own") - Number(a === "Your own"));
}
