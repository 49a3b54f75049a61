import type { PlanFrame } from "../api/client";
import type { Spot } from "./paint";

interface Xy {
  x: number;
  y: number;
}

/** How far a point of the picture is from a line between two others. */
function fromLine(p: Xy, a: Xy, b: Xy): number {
  const long = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
  const t = long > 0 ? Math.min(1, Math.max(0, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / long)) : 0;
  return Math.hypot(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y));
}

/** Says how far a point of the picture is from the middle line of the nearest pipe, in pixels. */
export function pipesOf(frame: PlanFrame, project: (s: Spot) => Xy): (p: Xy) => number {
  const lines: [Xy, Xy][] = [];
  for (const p of frame.pipes) {
    const way = (p.way ?? p.shown).map((s) => project(s));
    for (let i = 1; i < way.length; i++) lines.push([way[i - 1] as Xy, way[i] as Xy]);
  }
  return (p) => lines.reduce((least, [a, b]) => Math.min(least, fromLine(p, a, b)), Number.POSITIVE_INFINITY);
}

/** The places of a handle in the order in which they are to be tried: those off all pipes first, then by how far off they are. */
export function offPipes<T extends Xy>(places: T[], far: (p: Xy) => number, clear: number): T[] {
  const off = places.map((at) => ({ at, far: Math.min(far(at), clear) }));
  return off.sort((a, b) => b.far - a.far).map((x) => x.at);
}
