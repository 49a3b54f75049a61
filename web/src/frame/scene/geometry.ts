import { BufferAttribute, type BufferGeometry, CylinderGeometry, LatheGeometry, SphereGeometry, Vector2 } from "three";

// Shapes of length one along z, with a radius of one, that instances stretch.
// `shade` darkens what is inside a socket.

const around = 20;

function shaded(g: BufferGeometry, shade: (i: number) => number): BufferGeometry {
  const n = g.attributes.position?.count ?? 0;
  g.setAttribute("shade", new BufferAttribute(new Float32Array(Array.from({ length: n }, (_, i) => shade(i))), 1));
  return g;
}

/** Turns a profile of [along, radius, shade] about z. */
function turned(profile: [number, number, number][]): BufferGeometry {
  const g = new LatheGeometry(profile.map(([z, r]) => new Vector2(r, z)), around);
  g.rotateX(Math.PI / 2); // a lathe turns about y
  const n = profile.length;
  // lathe points run along the profile for each step around; sharp edges come from doubled points
  return shaded(g, (i) => profile[i % n]?.[2] ?? 1);
}

const sharp = (points: [number, number, number][]) => points.flatMap((p, i) => (i > 0 && i < points.length - 1 ? [p, p] : [p]));

export const pipe = () => {
  const g = new CylinderGeometry(1, 1, 1, around, 1, true);
  g.rotateX(Math.PI / 2);
  g.translate(0, 0, 0.5);
  return shaded(g, () => 1);
};

export const ball = () => shaded(new SphereGeometry(1, around, 12), () => 1);

/** A socket of a fitting from its centre to the rim: neck, hub, rim, and the hole down to the stop. */
export const socket = () =>
  turned(
    sharp([
      [0, 0.9, 1],
      [0.42, 0.9, 1],
      [0.5, 1, 1],
      [0.97, 1, 1],
      [1, 0.96, 1],
      [1, 0.8, 1],
      [0.5, 0.78, 0.45],
      [0.5, 0, 0.3],
    ]),
  );

/** A cap from its domed end to the rim. */
export const cap = () =>
  turned(
    sharp([
      [0, 0, 1],
      [0, 0.7, 1],
      [0.07, 0.9, 1],
      [0.18, 1, 1],
      [0.97, 1, 1],
      [1, 0.95, 1],
      [1, 0.78, 1],
    ]),
  );

/** A closed collar, or a plug's face. */
export const collar = () =>
  turned(
    sharp([
      [0, 0.9, 1],
      [0, 1, 1],
      [1, 1, 1],
      [1, 0.8, 1],
    ]),
  );

/** An open ring that stands off the rim. */
export const ring = () =>
  turned(
    sharp([
      [0, 0.92, 1],
      [0, 1, 1],
      [1, 1, 1],
      [1, 0.92, 1],
      [0, 0.92, 0.8],
    ]),
  );
