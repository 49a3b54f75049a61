import { Vector3 } from "three";
import { describe, expect, it } from "vitest";
import type { PlanFrame } from "../../api/client";
import { along, spotAlong } from "../paint";
import { type Body, bodiesOf } from "./bodies";

const IN = 25_400_000;
const p3 = (x: number, y: number, z: number) => [x * IN, y * IN, z * IN];
const pipe = (more: object) => ({ pipe: "p1", cut: 10 * IN, od: 2 * IN, shown: [p3(0, 0, 0), p3(10, 0, 0)], ...more });
const frame = (more: object) => ({ pipes: [], joints: [], links: [], ...more }) as unknown as PlanFrame;

const ends = (b: Body) => [new Vector3(0, 0, 0), new Vector3(0, 0, 1)].map((v) => v.applyMatrix4(b.matrix));

describe("bodies of a frame", () => {
  it("a straight pipe is one body between its rims", () => {
    const { pipes } = bodiesOf(frame({ pipes: [pipe({})] }), 0);
    expect(pipes).toHaveLength(1);
    const [a, b] = ends(pipes[0] as Body);
    expect(a?.distanceTo(new Vector3(0, 0, 0))).toBeLessThan(1e-9);
    expect(b?.distanceTo(new Vector3(10, 0, 0))).toBeLessThan(1e-9);
  });

  it("a bow is a chain of bodies that all are the one pipe", () => {
    const way = [p3(0, 0, 0), p3(3, 0, 4), p3(6, 0, 4), p3(9, 0, 0)];
    const { pipes } = bodiesOf(frame({ pipes: [pipe({ way })] }), 0);
    expect(pipes).toHaveLength(3);
    for (const [i, b] of pipes.entries()) {
      const [from, to] = ends(b);
      const at = (k: number) => new Vector3(...(way[k] as [number, number, number])).divideScalar(IN);
      expect(from?.distanceTo(at(i))).toBeLessThan(1e-9);
      expect(to?.distanceTo(at(i + 1))).toBeLessThan(1e-9);
      expect(b.owner).toEqual({ is: "pipe", id: "p1" });
    }
  });

  it("what has no length is not drawn", () => {
    expect(bodiesOf(frame({ pipes: [pipe({ cut: 0 }), pipe({ shown: [p3(1, 1, 1), p3(1, 1, 1)] })] }), 0).pipes).toHaveLength(0);
  });

  it("a wheel stands round its axle, as wide across as it is, and is picked with its pipe", () => {
    const disc = { at: p3(0, 0, 5), axis: [1, 0, 0], diameter: 10 * IN, wide: 2 * IN, on: "p7", pipe: true };
    const { caps } = bodiesOf(frame({ links: [{ discs: [disc] }] }), 0);
    expect(caps.length).toBeGreaterThan(20);
    for (const b of caps) {
      expect(b.owner).toEqual({ is: "pipe", id: "p7" });
      for (const e of ends(b)) expect(e.distanceTo(new Vector3(0, 0, 5))).toBeLessThan(5);
    }
    const lowest = Math.min(...caps.flatMap((b) => ends(b).map((e) => e.z)));
    expect(lowest).toBeGreaterThan(0); // the tyre's own thickness reaches the floor
    expect(lowest).toBeLessThan(1.2);
  });
});

describe("places along a pipe", () => {
  const bow = pipe({ way: [p3(0, 0, 0), p3(2, 0, 2), p3(4, 0, 0)] }) as never;
  it("follow its way", () => {
    expect(spotAlong(bow, 0.5)).toEqual(p3(2, 0, 2));
    expect(spotAlong(bow, 0.25)).toEqual(p3(1, 0, 1));
    expect(spotAlong(bow, 1)).toEqual(p3(4, 0, 0));
    expect(spotAlong(pipe({}) as never, 0.3)).toEqual(p3(3, 0, 0));
  });
  it("offer the middle first", () => {
    expect(along(bow)[0]).toEqual(p3(2, 0, 2));
    expect(along(bow)).toHaveLength(5);
  });
});
