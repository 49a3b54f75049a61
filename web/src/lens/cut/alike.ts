import type { Material, Plan, Stick } from "../../api/client";

/** Sticks that are cut alike: the plan lists them one after the other. */
export interface Alike {
  key: string;
  stick: Stick;
  count: number;
  /** The first one's number. */
  first: number;
}

export function alike(of: Material): Alike[] {
  const out: Alike[] = [];
  of.sticks.forEach((stick, i) => {
    const { key } = stick;
    const last = out.at(-1);
    if (last?.key === key) last.count++;
    else out.push({ key, stick, count: 1, first: i + 1 });
  });
  return out;
}

/** The tint of the n-th sort of stick, on the sheet as on the frame; they take turns. */
export const tint = (n: number) => `--stick-${(n % 6) + 1}`;

/** The tint of each stick of a plan, by size and number. */
export function tints(plan: Plan): (size: string, stick: number) => string {
  const all = new Map<string, string>();
  for (const t of plan.pipe) {
    alike(t.stock).forEach((a, n) => {
      for (let k = 0; k < a.count; k++) all.set(`${t.size} ${a.first + k}`, tint(n));
    });
  }
  return (size, stick) => all.get(`${size} ${stick}`) ?? "--pipe";
}
