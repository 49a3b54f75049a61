import given from "../../api/words.json";
import { ways } from "./ways";

/** What a line may name. */
export interface Nameable {
  joints: readonly string[];
  pipes: readonly string[];
  parts: readonly string[];
  /** The joints that lie in a direction, the likely ones first. */
  toward: (way: string) => readonly string[];
}

const forms = given.lines;
const directions = [...ways].reverse().map((w) => w.word as string);
const verbs = [...new Set(forms.map((f) => f.first).filter(Boolean))];
const begins = [...directions, "toward", "along", "hoop", "bend", ...verbs, ...given.kind.map((k) => k.value)];
const measures = ["cut", "clear", "outside", "visible", "slot", "top"];
const after = ["capped", "open", "staked", "times", "size", "within"];
const fields: Record<string, (n: Nameable) => readonly string[]> = {
  JOINT: (n) => n.joints,
  JOINTS: (n) => ["marked", ...n.joints],
  PIPE: (n) => n.pipes,
  PIPES: (n) => n.pipes,
  PART: (n) => n.parts,
  DIRECTIONS: () => directions,
  FITTING: () => given.kind.map((k) => k.value),
};

/** What the last word of a line may become, the likely ones first; nothing where nothing helps. */
export function complete(line: string, n: Nameable): string[] {
  const started = /^([^:="]*:)?\s*(?:[\p{L}_][\p{L}\p{N}_-]*\s*=\s*)?(.*)$/u.exec(line)?.[2] ?? line;
  const words = started.split(/\s+/);
  const last = words.at(-1) ?? "";
  const before = words.slice(0, -1).map((w) => w.toLowerCase());
  const fits = (all: readonly string[]) => {
    const low = last.toLowerCase();
    return [...new Set(all)].filter((w) => w.toLowerCase().startsWith(low) && w !== last).slice(0, 8);
  };
  if (before.length === 0) return last ? fits(begins) : [];
  const first = before[0] ?? "";
  const previous = before.at(-1) ?? "";
  if (["to", "toward", "with", "along"].includes(previous) && isRun(first)) {
    const near = n.toward(directions.find((d) => before.includes(d)) ?? "");
    return fits(last ? [...near, ...n.joints, ...n.pipes] : near.slice(0, 4));
  }
  if (isRun(first)) {
    const way = directions.includes(previous);
    if (way && !last)
      return [
        "touching",
        ...n
          .toward(previous)
          .slice(0, 3)
          .map((j) => `to ${j}`),
      ];
    if (!last) return [];
    return /\d/.test(previous)
      ? fits([...measures, ...after])
      : fits([...directions, "to", "level with", "touching", ...measures, ...after]);
  }
  if (!last) return [];
  const usable = forms.filter((f) => f.first === first || (!f.first && !verbs.includes(first)));
  const wants = usable.flatMap((f) => {
    const parts = f.usage.replace(/[[\]]/g, " ").split(/\s+/);
    const at = parts.findIndex((p) => p.toLowerCase() === previous);
    const field = parts[at + 1];
    return field === undefined ? [] : [field];
  });
  const named = wants.flatMap((w) => [...(fields[w]?.(n) ?? [])]);
  const keys = usable.flatMap((f) =>
    f.usage
      .replace(/[[\]]/g, " ")
      .split(/\s+/)
      .filter((w) => w && w === w.toLowerCase() && !before.includes(w)),
  );
  return fits([...named, ...keys, ...n.joints]);
}

const isRun = (word: string) =>
  ["toward", "towards", "along", "hoop", "bend"].includes(word) || /^(left|right|near|away|down|up|front|back|[lrnadu])(@.*)?$/.test(word);

/** A line with its last word become another. */
export const completed = (line: string, word: string) => `${line.replace(/\S*$/, "")}${word} `;
