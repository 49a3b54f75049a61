import { Matrix4, Quaternion, Vector3 } from "three";
import type { Joint, PlanFrame, Port } from "../../api/client";
import type { Picked } from "../items";
import { inches } from "../paint";
import type { Shape } from "./geometry";

/** One stretched shape, what it belongs to, and which colour it takes. */
export interface Body {
  matrix: Matrix4;
  owner: NonNullable<Picked>;
  /** The insertion that a ring stands for. */
  insertion?: { joint: string; pipe: string; cemented: boolean };
}

export type Bodies = Record<Shape, Body[]>;

const up = new Vector3(0, 0, 1);
const v = (p: readonly number[]) => new Vector3(inches(p[0] as number), inches(p[1] as number), inches(p[2] as number));

function stretched(from: Vector3, dir: Vector3, length: number, radius: number): Matrix4 {
  return new Matrix4().compose(from, new Quaternion().setFromUnitVectors(up, dir), new Vector3(radius, radius, length));
}

/** Real pipe and fitting bodies to scale, in inches, from the planned frame. */
export function bodiesOf(f: PlanFrame, rings: number): Bodies {
  const b: Bodies = { pipes: [], sockets: [], balls: [], caps: [], mouths: [], collars: [], rings: [] };
  for (const p of f.pipes) {
    if (p.cut <= 0) continue;
    const way = (p.way ?? p.shown).map(v);
    for (const [i, from] of way.entries()) {
      const dir = way[i + 1]?.clone().sub(from);
      const length = dir?.length() ?? 0;
      if (!dir || length < 1e-6) continue;
      b.pipes.push({ matrix: stretched(from, dir.divideScalar(length), length, inches(p.od) / 2), owner: { is: "pipe", id: p.pipe } });
    }
  }
  for (const j of f.joints) addJoint(b, j, rings);
  for (const d of f.links.flatMap((l) => l.discs ?? [])) {
    const axis = new Vector3(...(d.axis as [number, number, number]));
    const wide = inches(d.wide);
    const at = v(d.at);
    const owner = { is: d.pipe ? ("pipe" as const) : ("joint" as const), id: d.on };
    b.caps.push({ matrix: stretched(at.clone().addScaledVector(axis, -wide / 2), axis, wide, inches(d.diameter) / 9), owner });
    // the tyre, in short straight parts, and four spokes
    const thick = Math.min(wide / 2, inches(d.diameter) / 10);
    const far = inches(d.diameter) / 2 - thick;
    const u = new Vector3(axis.y, -axis.x, 0);
    if (u.lengthSq() < 1e-6) u.set(0, 1, 0);
    u.normalize();
    const w = axis.clone().cross(u);
    const rim = (k: number) =>
      at
        .clone()
        .addScaledVector(u, far * Math.cos((k * Math.PI) / 12))
        .addScaledVector(w, far * Math.sin((k * Math.PI) / 12));
    for (let k = 0; k < 24; k++) {
      const step = rim(k + 1).sub(rim(k));
      const long = step.length();
      b.caps.push({ matrix: stretched(rim(k), step.divideScalar(long), long, thick), owner });
      if (k % 6 === 0) b.caps.push({ matrix: stretched(at, rim(k).sub(at).normalize(), far, thick * 0.6), owner });
    }
  }
  return b;
}

function addJoint(b: Bodies, j: Joint, rings: number) {
  if (!j.kind) return;
  const at = v(j.at);
  const owner = { is: "joint" as const, id: j.id };
  if (j.kind === "cap") {
    const p = j.ports[0] as Port;
    const dir = new Vector3(...(p.dir as [number, number, number]));
    const beyond = inches((j.capEnd ?? 0) + (1 - p.seat) * p.depth);
    const takes = inches(p.seat * p.depth);
    b.caps.push({ matrix: stretched(at.clone().addScaledVector(dir, -beyond), dir, beyond + takes, inches(j.body) / 2), owner });
    addRing(b, j, p, at.clone().addScaledVector(dir, takes), dir, rings);
    return;
  }
  // a straight run through the centre covers it; a corner needs a ball
  if (!j.ports.some((p) => p.known && j.ports.some((q) => q.known && opposite(p.dir, q.dir))))
    b.balls.push({ matrix: new Matrix4().compose(at, new Quaternion(), new Vector3().setScalar((inches(j.body) / 2) * 0.92)), owner });
  for (const p of j.ports) {
    if (!p.known) continue;
    const dir = new Vector3(...(p.dir as [number, number, number]));
    const flange = (p.bushings ?? []).reduce((sum, x) => sum + inches(x.flange ?? 0), 0);
    const face = inches(p.face);
    b.sockets.push({ matrix: stretched(at, dir, face - flange, inches(p.body) / 2), owner });
    if (p.fill === "open") b.mouths.push({ matrix: stretched(at, dir, face - flange, inches(p.body) / 2), owner });
    const rim = at.clone().addScaledVector(dir, face);
    if (flange > 0) b.caps.push({ matrix: stretched(rim, dir.clone().negate(), flange, inches(p.body) * 0.44), owner });
    if (p.fill === "plug")
      b.caps.push({ matrix: stretched(rim.clone().addScaledVector(dir, 0.12), dir.clone().negate(), 0.12, inches(p.body) * 0.42), owner });
    if (p.fill === "pipe" && !j.assumed) addRing(b, j, p, rim, dir, rings);
  }
}

const opposite = (a: readonly number[], b: readonly number[]) =>
  [0, 1, 2].reduce((sum, i) => sum + (a[i] as number) * (b[i] as number), 0) < -0.95;

/** A closed collar of primer stain for cement, an open ring for a dry joint. */
function addRing(b: Bodies, j: Joint, p: Port, rim: Vector3, dir: Vector3, rings: number) {
  if (rings === 0 || !p.pipe) return;
  const body = inches(p.body) / 2;
  const cemented = p.mode === "cemented";
  const insertion = { joint: j.id, pipe: p.pipe, cemented };
  const owner = { is: "joint" as const, id: j.id };
  const long = body * (cemented ? 0.42 : 0.26) * rings;
  const wide = body * (cemented ? 1.06 : 1.02 + 0.16 * rings);
  const from = rim.clone().addScaledVector(dir, cemented ? -long * 0.8 : -long * 0.5);
  (cemented ? b.collars : b.rings).push({ matrix: stretched(from, dir, long, wide), owner, insertion });
}
