// Three versions of a document made one: what was there, and what two windows
// made of it. Members that only one of them changed take that change.
type Json = unknown;

const isRecord = (v: Json): v is Record<string, Json> => typeof v === "object" && v !== null && !Array.isArray(v);

export const same = (a: Json, b: Json): boolean => {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((v, i) => same(v, b[i]));
  if (!isRecord(a) || !isRecord(b)) return false;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((k) => same(a[k], b[k]));
};

export interface Merged<T> {
  value: T;
  /** Members that both changed, each to something else. */
  clashes: string[];
}

/** Puts the changes from base to mine onto theirs; where both changed the same, mine stays and the place is named. */
export function merge<T>(base: T, mine: T, theirs: T): Merged<T> {
  const clashes: string[] = [];
  const value = join(base, mine, theirs, "", clashes) as T;
  return { value, clashes };
}

function join(base: Json, mine: Json, theirs: Json, at: string, clashes: string[]): Json {
  if (same(mine, theirs) || same(base, theirs)) return mine;
  if (same(base, mine)) return theirs;
  if (isRecord(mine) && isRecord(theirs)) {
    const b = isRecord(base) ? base : {};
    const out: Record<string, Json> = {};
    for (const k of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
      const v = join(b[k], mine[k], theirs[k], `${at}/${k}`, clashes);
      if (v !== undefined) out[k] = v;
    }
    return out;
  }
  clashes.push(at);
  return mine;
}
