// The labels of what a builder chooses among are written beside their rules; `make types` brings them here.
import given from "../api/words.json";

interface Word {
  value: string;
  words: string;
  note?: string;
}

const of = (words: Word[]) => {
  const by = new Map(words.map((w) => [w.value, w.words]));
  return (value: string | undefined) => by.get(value ?? "") ?? value ?? "";
};

/** What a size means: "centre to centre". */
export const meaning = of(given.meaning);

/** How exactly a piece is cut. */
export const classWords = of(given.class);

/** The ways to cut a piece, to choose among: value, label, a word of explanation. */
export const classes = (given.class as Word[]).map((w) => [w.value, w.words, w.note] as const);

/** How a pipe is held in a socket. */
export const modeWords = of(given.mode);

/** The ways to hold a pipe, to choose among. */
export const modes = given.mode.map((w) => [w.value, w.words] as const);

/** What becomes of a piece that is not straight. */
export const pathWords = of(given.path);

/** The ways of cementing, to choose among. */
export const schools = (given.school as Word[]).map((w) => [w.value, w.words, w.note] as const);

/** A kind of fitting as a shelf label says it. */
export const kindWords = of(given.kind);

/** The kinds of hardware that are sold by the length. */
export const byLength: string[] = given.byLength;

const kinds = new Set(given.kind.map((k) => k.value));

/** Whether the catalog has a kind of fitting; the others are parts of the builder's own. */
export const isCatalogKind = (kind: string) => kinds.has(kind);

/** The strains up to which a sprung pipe keeps well, and at all, as shares. */
export const strainLimits = given.strain;

/** A nominal size as it is said: 3/4 in, 1 × 3/4 in. */
export const sizeWords = (size: string) => `${size.replace("x", " × ")} in`;

/** How many small parts and how many sticks are said at once, and how much longer than its name a stick may be, in nanometres. */
export const recordTakes: { parts: number; sticks: number; overLong: number } = given.record;
