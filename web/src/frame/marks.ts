import type { Place } from "../api/client";

export type Plane = Place["planes"][number][number];

/** The planes that stand at one place of an axis: a mark on its ruler. */
export interface Mark {
  /** Of the plane that the mark is pulled and sized by. */
  key: string;
  name: string;
  at: number;
  copied: boolean;
  planes: Plane[];
}

/** The marks along an axis of a part, in their order. */
export function marksOf(place: Place, axis: number): Mark[] {
  const out: Mark[] = [];
  for (const p of place.planes[axis] ?? []) {
    const last = out.at(-1);
    if (last && last.planes[0]?.mark === p.mark) {
      last.planes.push(p);
      continue;
    }
    out.push({ key: "", name: "", at: p.at, copied: false, planes: [p] });
  }
  for (const m of out) {
    // named ones first, then those that a size leads to
    m.planes.sort(
      (p, q) => Number(q.ref.startsWith("=")) - Number(p.ref.startsWith("=")) || Number(Boolean(q.size)) - Number(Boolean(p.size)),
    );
    const first = m.planes[0] as Plane;
    m.key = first.ref;
    m.name = first.name;
    m.copied = m.planes.every((p) => p.copied ?? false);
  }
  return out;
}
