import type { Joint } from "../../api/client";

/** The six square directions, as they are said, with the world's axes. */
export const ways = [
  { word: "left", dir: [-1, 0, 0] },
  { word: "right", dir: [1, 0, 0] },
  { word: "near", dir: [0, -1, 0] },
  { word: "away", dir: [0, 1, 0] },
  { word: "down", dir: [0, 0, -1] },
  { word: "up", dir: [0, 0, 1] },
] as const;

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((s, x, i) => s + x * (b[i] ?? 0), 0);

/** Whether a pipe leaves a joint in a direction already. At an open end the pipe leaves the other way. */
export function taken(j: Joint, dir: readonly number[]): boolean {
  return j.ports.some((p) => p.fill === "pipe" && dot(p.dir, dir) > 0.99);
}

/** A direction in words: "up", or "right and up" for one between two. */
export function said(dir: readonly number[]): string {
  return ways
    .filter((w) => dot(w.dir, dir) > 0.3)
    .map((w) => w.word)
    .join(" and ");
}

/** A typed line begins with a direction; the rest is how far. */
export function withWay(line: string, word: string): string {
  const rest = line
    .trim()
    .split(/\s+/)
    .filter((w) => !/^(left|right|near|away|down|up|front|back|[lrnadu])(@[\d.]+°?)?$/i.test(w))
    .join(" ");
  return `${word} ${rest}`.trimEnd() + (rest ? "" : " ");
}
