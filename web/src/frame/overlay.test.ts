import { describe, expect, it } from "vitest";
import type { PlanFrame } from "../api/client";
import { type Placed, drawOverlay, pulled } from "./overlay";
import type { Paint, Tag } from "./paint";

const IN = 25_400_000;
const px = 4; // pixels an inch, seen from the front

/** A frame 60 wide, 24 deep, 40 high, seen from the front and a little from above. */
const frame = {
  overall: [60, 24, 40].map((s, axis) => ({ axis, size: s * IN, from: 0 })),
  joints: [{ at: [30 * IN, 0, 0] }],
} as unknown as PlanFrame;
const project = (p: readonly number[]) => ({
  x: 200 + ((p[0] as number) / IN) * px,
  y: 400 - ((p[2] as number) / IN) * px - (p[1] as number) / IN,
  far: 0,
});

const nothing = new Proxy({}, { get: () => () => undefined, set: () => true }) as unknown as CanvasRenderingContext2D;
const label = (w: number, h = 20): Placed => ({ el: { style: {} } as HTMLElement, w, h, words: "" });

function laid(sizes: unknown[], tags: Tag[], elements: Record<string, Placed>) {
  const paint = { rulers: true, sizes, tags } as unknown as Paint;
  const some = (keys: string[]) => new Map(keys.map((k) => [k, elements[k] as Placed]));
  const lines = drawOverlay({
    frame,
    paint,
    style: "inches",
    project,
    width: 700,
    height: 600,
    ctx: nothing,
    colour: () => "#000",
    tags: some(tags.map((t) => t.key)),
    sizes: some(sizes.map((s) => (s as { id: string }).id)),
    planes: new Map(),
    grips: new Map(),
  });
  const box = (k: string) => {
    const e = elements[k] as Placed;
    const m = /translate\((-?\d+)px, (-?\d+)px\)/.exec(e.el.style.transform ?? "");
    return { x: Number(m?.[1]), y: Number(m?.[2]), w: e.w, h: e.h, seen: e.el.style.visibility === "visible" };
  };
  return { lines, box };
}

const apart = (a: ReturnType<ReturnType<typeof laid>["box"]>, b: typeof a) =>
  a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y;
const tag = (key: string, x: number, z: number, more: Partial<Tag> = {}): Tag => ({
  key,
  text: key,
  look: "letter",
  places: [
    [x * IN, 0, z * IN],
    [(x + 10) * IN, 0, z * IN],
  ],
  ...more,
});

describe("labels over the frame", () => {
  it("avoid each other, and the one that finds no place gives way", () => {
    const tags = [tag("a", 30, 20), tag("b", 30, 20), tag("c", 30, 20)];
    const { box } = laid([], tags, { a: label(24), b: label(24), c: label(24) });
    expect(box("a").seen && box("b").seen).toBe(true);
    expect(apart(box("a"), box("b"))).toBe(true);
    expect(box("c").seen).toBe(false);
  });

  it("that must show do, whatever is in the way", () => {
    const { box } = laid([], [tag("a", 30, 20), tag("b", 30, 20, { must: true, places: [[30 * IN, 0, 20 * IN]] })], {
      a: label(24),
      b: label(24),
    });
    expect(box("b").seen).toBe(true);
  });
});

const size = (id: string, axis: number, from: number, to: number) => ({ id, axis, span: [from * IN, to * IN] });

describe("sizes on the frame", () => {
  it("that overlap stand in lanes of their own", () => {
    const { box } = laid([size("short", 0, 0, 40), size("long", 0, 0, 60)], [], { short: label(80), long: label(80) });
    expect(apart(box("short"), box("long"))).toBe(true);
    expect(box("long").y).toBeGreaterThan(box("short").y);
  });

  it("one after the other share a lane", () => {
    const { box } = laid([size("one", 0, 0, 28), size("two", 0, 30, 58)], [], { one: label(50), two: label(50) });
    expect(box("one").y).toBe(box("two").y);
  });

  it("stay on the picture and are hidden when their axis is seen from its end", () => {
    const { box } = laid([size("high", 2, 0, 40), size("deep", 1, 0, 24)], [], { high: label(300), deep: label(60) });
    expect(box("high").x).toBeGreaterThanOrEqual(0);
    expect(box("deep").seen).toBe(false);
  });

  it("follow the hand that pulls them, along their line only", () => {
    const { lines } = laid([size("wide", 0, 0, 60)], [], { wide: label(80) });
    const line = lines.get("wide");
    if (!line) throw new Error("no line");
    expect(pulled(line, 3 * px, 0) / IN).toBeCloseTo(3, 6);
    expect(pulled(line, 0, 50) / IN).toBeCloseTo(0, 6);
  });
});

describe("a size along no axis", () => {
  const sloped = {
    id: "s",
    axis: -1,
    ends: [
      [10 * IN, 0, 0],
      [40 * IN, 0, 40 * IN],
    ],
    span: [0, 0],
    value: 50 * IN,
    out: 50 * IN,
  };

  it("stands beside what it measures, its label on its line", () => {
    const { box } = laid([sloped], [], { s: label(50) });
    const b = box("s");
    expect(b.seen).toBe(true);
    // the middle is at 25 across and 20 up: 300, 320 on the picture; the line is 22 pixels off it
    const away = Math.hypot(b.x + b.w / 2 - 300, b.y + b.h / 2 - 320);
    expect(away).toBeGreaterThan(18);
    expect(away).toBeLessThan(26);
  });

  it("is pulled along its own slope", () => {
    const { lines } = laid([sloped], [], { s: label(50) });
    const line = lines.get("s");
    if (!line) throw new Error("no line");
    // 120 across and 160 up on the picture are its 50 inches
    expect(pulled(line, 12, -16) / IN).toBeCloseTo(5, 3);
    expect(Math.abs(pulled(line, 16, 12)) / IN).toBeLessThan(0.01);
  });

  it("gives way where its ends fall together, or are not told", () => {
    const end = [
      [10 * IN, 0, 0],
      [10 * IN, 0, 0],
    ];
    expect(laid([{ ...sloped, ends: end }], [], { s: label(50) }).box("s").seen).toBe(false);
    expect(laid([{ ...sloped, ends: undefined }], [], { s: label(50) }).box("s").seen).toBe(false);
  });
});
