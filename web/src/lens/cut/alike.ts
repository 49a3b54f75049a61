import type { Plan } from "../../api/client";

/** A piece of a stick as it is drawn. */
export interface DrawnPiece {
  name?: string;
  length: number;
  /** Where its far end is cut, from the end at which cutting begins. */
  at?: number;
  cut?: string;
  fate?: string;
}

/** A stick as it is drawn: of a plan, or of a list that is cut alone. */
export interface DrawnStick {
  key: string;
  length: number;
  origin: string;
  left: number;
  pieces: DrawnPiece[];
  earlier?: boolean;
  /** Real cuts may take more than it has to spare. */
  edge?: boolean;
  /** Where the shop cuts it, from one end, and what it is carried as. */
  marks?: number[];
  parts?: { length: number; pieces?: number; left?: number; id?: string; racked?: boolean }[];
  id?: string;
  /** What is written on it. */
  number?: number;
  /** How long it is, where that is not what it is called. */
  true?: number;
  /** The stick that it is a part of. */
  of?: { id: string; length: number };
  /** Pieces of other projects that were cut from it. */
  lent?: { for: string; takes: number }[];
  letter?: string;
  racked?: boolean;
  /** Written on it, where it comes from the rack. */
  mark?: string;
}

/** Sticks that are cut alike: the plan lists them one after the other. */
export interface Alike<T extends DrawnStick> {
  key: string;
  all: T[];
  stick: T;
  /** The first one's number. */
  first: number;
}

export function alike<T extends DrawnStick>(sticks: T[]): Alike<T>[] {
  const out: Alike<T>[] = [];
  sticks.forEach((stick, i) => {
    const last = out.at(-1);
    if (last?.stick.key === stick.key && last.stick.earlier === stick.earlier) last.all.push(stick);
    else out.push({ key: `${stick.key} ${i}`, all: [stick], stick, first: i + 1 });
  });
  return out;
}

/** The tint of the n-th sort of stick, on the sheet as on the frame; they take turns. */
export const tint = (n: number) => `--stick-${(n % 6) + 1}`;

/** The tint of each stick of a plan, by size and number; those that were cut before come first, and have none. */
export function tints(plan: Plan): (size: string, stick: number) => string {
  const all = new Map<string, string>();
  for (const t of plan.pipe) {
    const before = t.sticks.filter((s) => s.earlier).length;
    alike(t.sticks.slice(before)).forEach((a, n) => {
      a.all.forEach((_, k) => void all.set(`${t.size} ${before + a.first + k}`, tint(n)));
    });
  }
  return (size, stick) => all.get(`${size} ${stick}`) ?? "--pipe";
}
