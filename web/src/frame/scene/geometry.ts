import { BufferAttribute, BufferGeometry } from "three";

// Shapes of length one along z, with a radius of one, that instances stretch.
// `shade` darkens what is inside a socket. Every stretch of a profile has
// points and normals of its own, so that edges stay sharp and nothing is drawn
// that cannot be seen: software draws these too.

/** [along, radius, shade]; a null begins another stretch that does not join the last. */
type Profile = ([number, number, number] | null)[];

/** How finely things are rounded, by what draws them. */
export const around = (software: boolean) => (software ? 8 : 22);

/** Turns a profile about z. */
function turned(profile: Profile, steps: number): BufferGeometry {
  const position: number[] = [];
  const normal: number[] = [];
  const shade: number[] = [];
  const index: number[] = [];
  for (let k = 1; k < profile.length; k++) {
    const a = profile[k - 1];
    const b = profile[k];
    if (!a || !b) continue;
    const first = position.length / 3;
    const [dz, dr] = [b[0] - a[0], b[1] - a[1]];
    const long = Math.hypot(dz, dr) || 1;
    for (let i = 0; i <= steps; i++) {
      const t = (2 * Math.PI * i) / steps;
      const [c, s] = [Math.cos(t), Math.sin(t)];
      for (const p of [a, b]) {
        position.push(p[1] * c, p[1] * s, p[0]);
        normal.push((dz / long) * c, (dz / long) * s, -dr / long);
        shade.push(p[2]);
      }
      if (i < steps) {
        const q = first + 2 * i;
        if (a[1] > 0) index.push(q, q + 2, q + 1);
        if (b[1] > 0) index.push(q + 1, q + 2, q + 3);
      }
    }
  }
  const g = new BufferGeometry();
  g.setAttribute("position", new BufferAttribute(new Float32Array(position), 3));
  g.setAttribute("normal", new BufferAttribute(new Float32Array(normal), 3));
  g.setAttribute("shade", new BufferAttribute(new Float32Array(shade), 1));
  g.setIndex(index);
  return g;
}

const tube: Profile = [
  [0, 1, 1],
  [1, 1, 1],
];

const ball: Profile = Array.from({ length: 7 }, (_, i) => {
  const t = (Math.PI * i) / 6;
  return [-Math.cos(t), Math.abs(Math.sin(t)) < 1e-9 ? 0 : Math.sin(t), 1];
});

const profiles = {
  pipes: tube,
  /** A socket of a fitting from its centre to the rim: neck, hub, rim. */
  sockets: [
    [0, 0.9, 1],
    [0.44, 0.9, 1],
    [0.5, 1, 1],
    [1, 1, 1],
    [1, 0.78, 1],
  ],
  balls: ball,
  /** A cap from its domed end to the rim. */
  caps: [
    [0, 0, 1],
    [0, 0.72, 1],
    [0.1, 0.95, 1],
    [0.2, 1, 1],
    [1, 1, 1],
    [1, 0.78, 1],
  ],
  /** The hole of an open socket, from the rim down to the stop. */
  mouths: [
    [1, 0.8, 0.5],
    [0.5, 0.78, 0.4],
    [0.5, 0, 0.3],
  ],
  collars: [
    [0, 0.8, 1],
    [0, 1, 1],
    [1, 1, 1],
    [1, 0.8, 1],
  ],
  /** An open ring that stands off the rim. */
  rings: [
    [0, 0.86, 0.9],
    [0, 1, 1],
    [1, 1, 1],
    [1, 0.86, 1],
    [0, 0.86, 0.75],
  ],
} satisfies Record<string, Profile>;

export type Shape = keyof typeof profiles;
export const shapeNames = Object.keys(profiles) as Shape[];

/** A socket with no more faces than its shape needs. */
const plainSocket: Profile = [[0, 0.93, 1], [0.48, 0.93, 1], null, [0.48, 1, 1], [1, 1, 1], [1, 0.78, 1]];

export const shape = (name: Shape, software: boolean) =>
  turned(software && name === "sockets" ? plainSocket : profiles[name], around(software));

/** What the outline of a shape is drawn from: no more than its silhouette needs. */
export function silhouette(name: Shape, software: boolean): BufferGeometry | undefined {
  if (name === "mouths") return undefined;
  if (name === "balls") return turned(ball, around(software));
  if (name === "pipes" || software) return turned(tube, around(software));
  // a socket's outline follows its neck, else it would stand out of the next one's
  if (name === "sockets")
    return turned([[0, 0.9, 1], [0.46, 0.9, 1], null, [0.46, 0, 1], [0.46, 1, 1], [1, 1, 1], [1, 0, 1]], around(software));
  if (name === "caps") return turned(profiles.caps, around(software));
  return turned(
    [
      [0, 0, 1],
      [0, 1, 1],
      [1, 1, 1],
      [1, 0, 1],
    ],
    around(software),
  );
}
