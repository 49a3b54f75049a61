import type { PlanFrame } from "../api/client";
import { type Mark, marksOf } from "./marks";
import { INCH, type Style } from "../lib/format";
import { offPipes, pipesOf } from "./off-pipes";
import type { Paint, Spot } from "./paint";

// What is written over the turning frame: rulers, size lines and labels, laid
// out anew for every picture. It draws; it works nothing out about the job.

export type Projection = (p: Spot) => { x: number; y: number; far: number };

interface Xy {
  x: number;
  y: number;
}

/** Where a size's line lies on the picture, for a hand that pulls it. */
export interface SizeLine {
  /** Pixels that one nanometre of the size takes, along x and y. */
  per: Xy;
}

export interface Overlay {
  frame: PlanFrame;
  paint: Paint;
  style: Style;
  project: Projection;
  width: number;
  height: number;
  ctx: CanvasRenderingContext2D;
  colour: (name: string) => string;
  /** The page's elements, by key, with their measured widths and heights. */
  tags: Map<string, Placed>;
  sizes: Map<string, Placed>;
  grips: Map<string, Placed>;
  /** Handles of the marks on the frame's rulers, by axis and name. */
  planes: Map<string, Placed>;
}

export interface Placed {
  el: HTMLElement;
  w: number;
  h: number;
  /** The words it was measured with. */
  words: string;
}

/** Measures a label again if its words have changed: to ask for a size costs the browser a layout. */
export function measured(p: Placed, afresh: boolean): Placed {
  const words = p.el.textContent ?? "";
  if (afresh || words !== p.words || p.w === 0) Object.assign(p, { words, w: p.el.offsetWidth, h: p.el.offsetHeight });
  return p;
}

interface Rect {
  x: number;
  y: number;
  w: number;
  h: number;
}

const overlaps = (a: Rect, b: Rect) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;

/** One edge of the outside box on the picture, with the way out from the frame. */
interface Edge {
  axis: number;
  at: (nm: number) => Xy; // a coordinate along the axis → its place on the edge
  p: Xy;
  q: Xy;
  out: Xy;
  long: number;
}

const ruler = { from: 12, to: 27 };

export function drawOverlay(o: Overlay): Map<string, SizeLine> {
  const { ctx, width, height } = o;
  ctx.clearRect(0, 0, width, height);
  const lines = new Map<string, SizeLine>();
  const taken: Rect[] = [];
  const unplaced = new Set(o.sizes.keys());
  for (const p of o.planes.values()) hide(p);
  for (const axis of [0, 1, 2]) {
    const e = edge(o, axis);
    if (!e) continue;
    if (o.paint.rulers) drawRuler(o, e);
    placeMarks(o, e, taken, lines);
    drawSizes(o, e, taken, lines, unplaced);
  }
  drawSloped(o, taken, lines, unplaced);
  for (const key of unplaced) {
    hide(o.sizes.get(key));
    hide(o.grips.get(key));
  }
  placeTags(o, taken);
  return lines;
}

function hide(p?: Placed) {
  if (p) p.el.style.visibility = "hidden";
}

function put(p: Placed | undefined, x: number, y: number) {
  if (!p) return;
  p.el.style.visibility = "visible";
  p.el.style.transform = `translate(${Math.round(x - p.w / 2)}px, ${Math.round(y - p.h / 2)}px)`;
}

/** Along which edge of the box an axis is ruled: the lowest on the picture, or the leftmost for heights. */
function edge(o: Overlay, axis: number): Edge | undefined {
  const box = o.frame.overall;
  const size = box[axis]?.size ?? 0;
  if (size <= 0) return undefined;
  const [b, c] = [0, 1, 2].filter((k) => k !== axis) as [number, number];
  const spot = (k: number, far: number) => (box[k]?.from ?? 0) + far * (box[k]?.size ?? 0);
  const middle = o.project([spot(0, 0.5), spot(1, 0.5), spot(2, 0.5)]);
  let best: Edge | undefined;
  let bestScore = Number.NEGATIVE_INFINITY;
  for (const sb of [0, 1])
    for (const sc of [0, 1]) {
      if (axis !== 2 && sc !== 0) continue; // floor edges only: c is the upright axis
      const at = (nm: number): Xy => {
        const p = [0, 0, 0];
        p[axis] = nm;
        p[b] = spot(b, sb);
        p[c] = spot(c, sc);
        return o.project(p);
      };
      const from = box[axis]?.from ?? 0;
      const p = at(from);
      const q = at(from + size);
      const long = Math.hypot(q.x - p.x, q.y - p.y);
      if (long < 36) continue;
      const mid = { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
      const score = axis === 2 ? -mid.x : mid.y + Math.abs(mid.x - middle.x) / 1000;
      if (score <= bestScore) continue;
      bestScore = score;
      const n = { x: -(q.y - p.y) / long, y: (q.x - p.x) / long };
      const away = n.x * (mid.x - middle.x) + n.y * (mid.y - middle.y);
      const out = away < -0.5 || (Math.abs(away) <= 0.5 && n.y < 0) ? { x: -n.x, y: -n.y } : n;
      best = { axis, at, p, q, out, long };
    }
  return best;
}

const off = (p: Xy, e: Edge, by: number): Xy => ({ x: p.x + e.out.x * by, y: p.y + e.out.y * by });

function path(ctx: CanvasRenderingContext2D, points: Xy[], closed = false) {
  ctx.beginPath();
  points.forEach((p, i) => {
    if (i === 0) ctx.moveTo(p.x, p.y);
    else ctx.lineTo(p.x, p.y);
  });
  if (closed) ctx.closePath();
}

const steps = {
  inch: [0.25, 0.5, 1, 3, 6, 12, 24, 48, 120].map((x) => x * INCH),
  mm: [5, 10, 50, 100, 250, 500, 1000, 5000].map((x) => x * 1_000_000),
};

/** A strip of tape along an edge, with a notch at every place that a joint stands at. */
function drawRuler(o: Overlay, e: Edge) {
  const { ctx, colour } = o;
  const x = o.frame.overall[e.axis];
  if (!x) return;
  const metric = o.style === "metric";
  const per = e.long / x.size;
  const all = metric ? steps.mm : steps.inch;
  const fine = all.find((s) => s * per >= 5) ?? x.size;
  const coarse = all.find((s) => s * per >= 42 && s >= fine) ?? x.size;
  path(ctx, [off(e.p, e, ruler.from), off(e.q, e, ruler.from), off(e.q, e, ruler.to), off(e.p, e, ruler.to)], true);
  ctx.fillStyle = colour("--tape");
  ctx.fill();
  ctx.strokeStyle = colour("--ink-2");
  ctx.lineWidth = 1;
  ctx.stroke();
  ctx.beginPath();
  for (let v = 0; v <= x.size + 1; v += fine) {
    const p = e.at(x.from + v);
    const whole = Math.abs(v / coarse - Math.round(v / coarse)) < 1e-6;
    const a = off(p, e, ruler.from);
    const b = off(p, e, ruler.from + (whole ? 7 : 4));
    ctx.moveTo(a.x, a.y);
    ctx.lineTo(b.x, b.y);
  }
  ctx.stroke();
  ctx.fillStyle = colour("--ink");
  ctx.font = "600 9.5px 'Atkinson Hyperlegible Next Variable', sans-serif";
  ctx.textAlign = "center";
  ctx.textBaseline = "middle";
  let angle = Math.atan2(e.q.y - e.p.y, e.q.x - e.p.x);
  if (angle > Math.PI / 2 || angle <= -Math.PI / 2) angle += Math.PI;
  for (let v = coarse; v <= x.size - coarse * 0.3; v += coarse) {
    const p = off(e.at(x.from + v), e, (ruler.from + ruler.to) / 2 + 3);
    ctx.save();
    ctx.translate(p.x, p.y);
    ctx.rotate(angle);
    ctx.fillText(metric ? String(Math.round(v / 1_000_000)) : String(Math.round(v / INCH)), 0, 0);
    ctx.restore();
  }
  ctx.fillStyle = colour("--accent");
  for (const v of notches(o.frame, e.axis)) {
    const p = e.at(v);
    const t = { x: (e.q.x - e.p.x) / e.long, y: (e.q.y - e.p.y) / e.long };
    const top = off(p, e, ruler.from - 7);
    const tip = off(p, e, ruler.from + 1);
    path(ctx, [{ x: top.x - t.x * 4, y: top.y - t.y * 4 }, { x: top.x + t.x * 4, y: top.y + t.y * 4 }, tip], true);
    ctx.fill();
  }
}

const found = new WeakMap<PlanFrame, number[][]>();

/** The coordinates along an axis at which joints stand. */
function notches(f: PlanFrame, axis: number): number[] {
  let all = found.get(f);
  if (!all) {
    all = [0, 1, 2].map((a) => [...new Set(f.joints.map((j) => Math.round((j.at[a] as number) / 25_400)))].map((n) => n * 25_400));
    found.set(f, all);
  }
  return all[axis] ?? [];
}

export const planeKey = (axis: number, id: string) => `${axis} ${id}`;

/** The marks of the frame's planes along an axis, each with the plane that is pulled by it. A frame that stands tilted has none along the rulers. */
export function marksAlong(f: PlanFrame, axis: number): Mark[] {
  const place = f.places[0];
  if (!place || (place.axes[axis]?.[axis] ?? 0) < 0.999) return [];
  return marksOf(place, axis);
}

/** Stands the handles of the marks on their ruler, and says what a pull of one comes to. */
function placeMarks(o: Overlay, e: Edge, taken: Rect[], lines: Map<string, SizeLine>) {
  if (!o.paint.planes) return;
  const x = o.frame.overall[e.axis];
  if (!x) return;
  for (const s of marksAlong(o.frame, e.axis)) {
    const key = planeKey(e.axis, s.key);
    const p = o.planes.get(key);
    if (!p) continue;
    const c = off(e.at(s.at), e, ruler.to + 3 + (Math.abs(e.out.x) * p.w + Math.abs(e.out.y) * p.h) / 2);
    c.x = Math.min(o.width - p.w / 2 - 2, Math.max(p.w / 2 + 2, c.x)); // always within reach
    c.y = Math.min(o.height - p.h / 2 - 2, Math.max(p.h / 2 + 2, c.y));
    const r = { x: c.x - p.w / 2, y: c.y - p.h / 2, w: p.w, h: p.h };
    lines.set(key, { per: { x: (e.q.x - e.p.x) / x.size, y: (e.q.y - e.p.y) / x.size } });
    if (taken.some((t) => overlaps(t, r))) continue;
    put(p, c.x, c.y);
    taken.push(r);
  }
}

function drawSizes(o: Overlay, e: Edge, taken: Rect[], lines: Map<string, SizeLine>, unplaced: Set<string>) {
  const { ctx, colour } = o;
  const mine = o.paint.sizes
    .filter((s) => s.axis === e.axis)
    .map((s) => ({ s, a: e.at(s.span[0] as number), b: e.at(s.span[1] as number) }))
    .map((m) => ({ ...m, long: Math.hypot(m.b.x - m.a.x, m.b.y - m.a.y) }))
    .sort((m, n) => m.long - n.long);
  const t = { x: (e.q.x - e.p.x) / e.long, y: (e.q.y - e.p.y) / e.long };
  const along = (p: Xy) => (p.x - e.p.x) * t.x + (p.y - e.p.y) * t.y;
  const lanes: { spans: [number, number][]; by: number; end: number }[] = [];
  for (const { s, a, b, long } of mine) {
    const label = o.sizes.get(s.id);
    // how much of the line's direction the label covers
    const half = label ? (Math.abs(t.x) * label.w + Math.abs(t.y) * label.h) / 2 + 6 : 0;
    const short = long < 2 * half + 12;
    const sign = along(b) >= along(a) ? 1 : -1;
    // a label that has no room on its line stands before its beginning
    const mid = short ? along(a) - sign * (half + 2) : (along(a) + along(b)) / 2;
    const span: [number, number] = [Math.min(along(a), along(b), mid - half), Math.max(along(a), along(b), mid + half)];
    // how far the label reaches to either side of the line: upright lines' lanes stand farther apart
    const deep = label ? (Math.abs(e.out.x) * label.w + Math.abs(e.out.y) * label.h) / 2 : 8;
    let at = lanes.find((l) => l.spans.every(([x, y]) => span[1] < x || span[0] > y));
    if (!at) {
      const end = lanes.at(-1)?.end ?? ruler.to;
      at = { spans: [], by: end + deep + 4, end: end + 2 * deep + 6 };
      lanes.push(at);
    }
    at.spans.push(span);
    const by = at.by;
    const [p, q] = [off(a, e, by), off(b, e, by)];
    ctx.strokeStyle = colour("--ink-2");
    ctx.lineWidth = 1;
    ctx.setLineDash([2, 3]);
    path(ctx, [off(a, e, ruler.to + 2), off(a, e, by + 5)]);
    ctx.stroke();
    path(ctx, [off(b, e, ruler.to + 2), off(b, e, by + 5)]);
    ctx.stroke();
    ctx.setLineDash([]);
    ctx.strokeStyle = colour("--ink");
    ctx.lineWidth = 1.4;
    path(ctx, [p, q]);
    ctx.stroke();
    arrows(ctx, p, q, long);
    const grip: Rect = { x: q.x - 9, y: q.y - 9, w: 18, h: 18 };
    if (label) {
      // along its line, clear of other labels, and kept on the picture
      const places = short ? [0] : [0, -0.18, 0.18, -0.3, 0.3];
      for (const [n, share] of places.entries()) {
        const m = mid + share * long;
        const c = { x: p.x + t.x * (m - along(a)), y: p.y + t.y * (m - along(a)) };
        c.x = Math.min(o.width - label.w / 2 - 4, Math.max(label.w / 2 + 4, c.x));
        c.y = Math.min(o.height - label.h / 2 - 4, Math.max(label.h / 2 + 4, c.y));
        const r = { x: c.x - label.w / 2, y: c.y - label.h / 2, w: label.w, h: label.h };
        if (n < places.length - 1 && taken.some((x) => overlaps(x, r))) continue;
        put(label, c.x, c.y);
        taken.push(r);
        break;
      }
    }
    taken.push(grip);
    put(o.grips.get(s.id), q.x, q.y);
    unplaced.delete(s.id);
    const nm = (s.span[1] as number) - (s.span[0] as number);
    if (nm !== 0) lines.set(s.id, { per: { x: (b.x - a.x) / Math.abs(nm), y: (b.y - a.y) / Math.abs(nm) } });
  }
}

/** The heads at both ends of a size's line. */
function arrows(ctx: CanvasRenderingContext2D, p: Xy, q: Xy, long: number) {
  if (long < 14) return;
  for (const [end, s] of [
    [p, 1],
    [q, -1],
  ] as const) {
    const u = { x: ((q.x - p.x) / long) * s, y: ((q.y - p.y) / long) * s };
    path(ctx, [
      { x: end.x + u.x * 7 - u.y * 3, y: end.y + u.y * 7 + u.x * 3 },
      end,
      { x: end.x + u.x * 7 + u.y * 3, y: end.y + u.y * 7 - u.x * 3 },
    ]);
    ctx.stroke();
  }
}

/** Sizes that run along no axis of the world stand beside what they measure. */
function drawSloped(o: Overlay, taken: Rect[], lines: Map<string, SizeLine>, unplaced: Set<string>) {
  const { ctx, colour } = o;
  for (const s of o.paint.sizes) {
    const [from, to] = s.ends ?? [];
    if (s.axis >= 0 || !from || !to) continue;
    const [a, b] = [o.project(from), o.project(to)];
    const long = Math.hypot(b.x - a.x, b.y - a.y);
    if (long < 8) continue;
    const n = { x: (b.y - a.y) / long, y: -(b.x - a.x) / long };
    const up = n.y > 0 ? -1 : 1; // on the upper side
    const [p, q] = [a, b].map((e) => ({ x: e.x + n.x * up * 22, y: e.y + n.y * up * 22 })) as [Xy, Xy];
    ctx.strokeStyle = colour("--ink-2");
    ctx.lineWidth = 1;
    ctx.setLineDash([2, 3]);
    for (const [e, f] of [
      [a, p],
      [b, q],
    ] as const) {
      path(ctx, [e, f]);
      ctx.stroke();
    }
    ctx.setLineDash([]);
    ctx.strokeStyle = colour("--ink");
    ctx.lineWidth = 1.4;
    path(ctx, [p, q]);
    ctx.stroke();
    arrows(ctx, p, q, long);
    if (s.out !== 0) lines.set(s.id, { per: { x: (b.x - a.x) / s.out, y: (b.y - a.y) / s.out } });
    put(o.grips.get(s.id), q.x, q.y);
    taken.push({ x: q.x - 9, y: q.y - 9, w: 18, h: 18 });
    unplaced.delete(s.id);
    const label = o.sizes.get(s.id);
    if (!label) continue;
    hide(label);
    for (const share of [0.5, 0.35, 0.65]) {
      const c = { x: p.x + (q.x - p.x) * share, y: p.y + (q.y - p.y) * share };
      const r = { x: c.x - label.w / 2, y: c.y - label.h / 2, w: label.w, h: label.h };
      if (share !== 0.65 && taken.some((x) => overlaps(x, r))) continue;
      put(label, c.x, c.y);
      taken.push(r);
      break;
    }
  }
}

const turns = [-0.25, 0.25, 0.75, -0.75, 0, 0.5, 1, -0.5].map((t) => t * Math.PI);

/** Puts every label on the first of its places that is free; those that must show take their first. */
function placeTags(o: Overlay, taken: Rect[]) {
  const far = o.paint.tags.some((t) => t.offPipes) ? pipesOf(o.frame, o.project) : () => 0;
  for (const tag of o.paint.tags) {
    const p = o.tags.get(tag.key);
    if (!p) continue;
    let done = false;
    const places = tag.places.flatMap((s) => {
      const at = o.project(s);
      return tag.off
        ? turns.map((a) => ({ x: at.x + Math.cos(a) * ((tag.off ?? 0) + p.w / 4), y: at.y + Math.sin(a) * (tag.off ?? 0) }))
        : [at];
    });
    for (const at of tag.offPipes ? offPipes(places, far, p.w / 2 + 6) : places) {
      const r = { x: at.x - p.w / 2 - 1, y: at.y - p.h / 2 - 1, w: p.w + 2, h: p.h + 2 };
      if (taken.some((t) => overlaps(t, r))) continue;
      put(p, at.x, at.y);
      taken.push(r);
      done = true;
      break;
    }
    if (done) continue;
    const first = places[0];
    if (tag.must && first) put(p, first.x, first.y);
    else hide(p);
  }
}

/** How a size's value changes when its end is pulled by so many pixels, in nanometres. */
export function pulled(line: SizeLine, dx: number, dy: number): number {
  const n = line.per.x ** 2 + line.per.y ** 2;
  return n > 0 ? (dx * line.per.x + dy * line.per.y) / n : 0;
}
