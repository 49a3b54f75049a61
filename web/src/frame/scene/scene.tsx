import { Canvas, type ThreeEvent, useFrame, useThree } from "@react-three/fiber";
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import {
  Box3,
  BufferAttribute,
  BufferGeometry,
  type Camera,
  CircleGeometry,
  Color,
  type InstancedMesh,
  LineBasicMaterial,
  LineSegments,
  MeshBasicMaterial,
  type ShaderMaterial,
  Vector3,
} from "three";
import type { PlanFrame } from "../../api/client";
import { type Picked, lit } from "../items";
import { type Paint, inches, spotOf } from "../paint";
import { type Bodies, type Body, bodiesOf } from "./bodies";
import { type Shape, shape, shapeNames, silhouette } from "./geometry";
import { bodyMaterial, inkMaterial } from "./materials";
import { Rig, type Room, type View as ViewName } from "./rig";

export interface SceneProps {
  frame: PlanFrame;
  paint: Paint;
  picked: Picked;
  perspective: boolean;
  dark: boolean;
  still: boolean;
  /** No graphics hardware: draw less finely. */
  software: boolean;
  onPick: (p: Picked) => void;
  onHover: (p: Picked) => void;
  onRing: (at: { joint: string; pipe: string; cemented: boolean }) => void;
  /** The picture can no longer be drawn here. */
  onLost: () => void;
  /** Gives the way to command the view. */
  onReady: (show: (v: ViewName) => void) => void;
  /** After each picture: where points of the frame (nanometres) stand on it, in pixels. */
  onDrawn: (project: Projection, width: number, height: number) => void;
}

export type Projection = (p: readonly number[]) => { x: number; y: number; far: number };

export default function Scene(props: SceneProps) {
  return (
    <Canvas
      frameloop="demand"
      linear
      flat
      legacy
      dpr={props.software ? 1 : [1, 2]}
      gl={{ antialias: !props.software, alpha: false, powerPreference: "low-power" }}
      aria-hidden="true"
      onPointerMissed={(e) => e.type === "click" && props.onPick(undefined)}
    >
      <Eye {...props} />
      <Content {...props} />
    </Canvas>
  );
}

const boxOf = (f: PlanFrame) => {
  const [x, y, z] = f.overall;
  const lo = new Vector3(inches(x?.from ?? 0), inches(y?.from ?? 0), inches(z?.from ?? 0));
  return new Box3(lo, lo.clone().add(new Vector3(inches(x?.size ?? 0), inches(y?.size ?? 0), inches(z?.size ?? 0))));
};

/** The camera: moved by hand and by command; every move asks for one picture. */
function Eye(props: SceneProps) {
  const { gl, invalidate } = useThree();
  const { onLost } = props;
  useEffect(() => {
    gl.domElement.addEventListener("webglcontextlost", onLost);
    return () => gl.domElement.removeEventListener("webglcontextlost", onLost);
  }, [gl, onLost]);
  const [rig, setRig] = useState<Rig>();
  useLayoutEffect(() => {
    const r = new Rig(gl.domElement, () => invalidate());
    setRig(r);
    return () => r.dispose();
  }, [gl, invalidate]);
  return rig ? <Rigged key={rig.id} rig={rig} {...props} /> : null;
}

/** How long the view must stand still before software draws it finely, in ms. */
const rest = 350;

function Rigged({ rig, frame, paint, picked, perspective, still: asked, software, onReady, onDrawn }: SceneProps & { rig: Rig }) {
  const { gl, set, size, invalidate } = useThree();
  const still = asked || software; // a slow picture does not move by itself
  const fine = useRef<{ now: boolean; timer?: ReturnType<typeof setTimeout> }>({ now: false });
  const shown = useRef(false);
  const apart = useRef("");
  rig.still = still;
  const room = roomFor(paint, size.width);
  rig.room = room;
  const spot = spotOf(frame, picked);
  rig.picked = spot && new Vector3(...(spot.map(inches) as [number, number, number]));

  useLayoutEffect(() => {
    rig.resize(size.width, size.height);
    rig.frame(boxOf(frame));
    // a new frame, another lens or another window is shown whole; a changed size leaves the view as it stands unless it runs out of
    // it, and so does a size that comes later, such as with what a slow server says of the starter
    const box = boxOf(frame).getSize(new Vector3());
    const now = `${size.width}x${size.height} ${paint.rulers}`;
    if (!shown.current) {
      rig.still = true;
      rig.show("corner");
      rig.still = still;
      shown.current = true;
    } else if (apart.current !== now || grown(rig, box) || rig.cramped) rig.show("fit");
    apart.current = now;
    rig.flat.userData.box = box;
    invalidate();
  }, [rig, frame, size.width, size.height, paint.rulers, room.left, room.right, room.top, room.bottom, still, invalidate]);

  useLayoutEffect(() => {
    rig.perspective(perspective);
    set({ camera: rig.camera as never });
    invalidate();
  }, [rig, perspective, set, invalidate]);

  useEffect(
    () =>
      onReady((v) => {
        rig.show(v);
        invalidate();
      }),
    [rig, onReady, invalidate],
  );

  useEffect(() => () => clearTimeout(fine.current.timer), []);
  useFrame((_, delta) => {
    if (software) {
      // coarse while anything changes, and once finely when it stands still
      gl.setPixelRatio(fine.current.now ? 2 : 1);
      clearTimeout(fine.current.timer);
      if (!fine.current.now)
        fine.current.timer = setTimeout(() => {
          fine.current.now = true;
          invalidate();
        }, rest);
      fine.current.now = false;
    }
    if (rig.controls.update(Math.min(delta, 0.05))) invalidate();
    const camera: Camera = rig.camera;
    camera.updateMatrixWorld();
    const p = new Vector3();
    const { width, height } = size;
    onDrawn(
      (spot) => {
        p.set(inches(spot[0] as number), inches(spot[1] as number), inches(spot[2] as number)).project(camera);
        return { x: ((p.x + 1) / 2) * width, y: ((1 - p.y) / 2) * height, far: p.z };
      },
      width,
      height,
    );
  });
  return null;
}

/** Room round the frame for rulers and for the sizes, which stand in lanes side by side. */
function roomFor(paint: Paint, width: number): Room {
  if (paint.rulers && width < 540) return { left: 48, right: 56, top: 28, bottom: 56 };
  if (!paint.rulers) return { left: 48, right: 56, top: 44, bottom: 44 };
  const upright = paint.sizes.filter((s) => s.axis === 2).length;
  const level = Math.max(...[0, 1].map((a) => paint.sizes.filter((s) => s.axis === a).length));
  const aside = paint.sizes.some((s) => s.axis === 1);
  return { left: 44 + 70 * Math.min(3, upright), right: aside ? 92 : 56, top: 44, bottom: 56 + 26 * Math.min(4, level) };
}

/** Whether the frame changed so much in size that it should be shown whole again. */
function grown(rig: Rig, box: Vector3) {
  const was = rig.flat.userData.box as Vector3 | undefined;
  return was !== undefined && [box.x / was.x, box.y / was.y, box.z / was.z].some((k) => k > 1.08 || k < 0.8);
}

function Content({ frame, paint, picked, dark, software, onPick, onHover, onRing }: SceneProps) {
  const { gl, invalidate, size } = useThree();
  const bodies = useMemo(() => bodiesOf(frame, paint.rings), [frame, paint.rings]);
  const geometry = useMemo(
    () => new Map(shapeNames.map((k) => [k, { body: shape(k, software), outline: silhouette(k, software) }])),
    [software],
  );
  const material = useMemo(() => ({ body: bodyMaterial(), ink: inkMaterial() }), []);
  const colour = useMemo(() => colours(), [dark]); // eslint-disable-line

  useLayoutEffect(() => {
    const u = (material.ink as ShaderMaterial).uniforms;
    const c = colour("--edge");
    if (u.ink) u.ink.value = [c.r, c.g, c.b];
    gl.setClearColor(colour("--stage"), 1);
    u.view?.value.set(size.width, size.height);
    invalidate();
  }, [gl, material, colour, size.width, size.height, invalidate]);

  const tint = useMemo(() => {
    const pipes = new Map(frame.pipes.map((p) => [p.pipe, p]));
    const joints = new Map(frame.joints.map((j) => [j.id, j]));
    return (b: Body, kind: Shape): Color => {
      if (kind === "collars") return colour("--cement");
      if (kind === "rings") return colour("--ring-dry");
      if (b.owner.is === "pipe") {
        const p = pipes.get(b.owner.id);
        if (!p) return colour("--pipe");
        const how = lit(p, picked, frame);
        return colour(how === "picked" ? "--accent-soft" : how === "alike" ? "--wood" : p.tooShort ? "--bad" : paint.pipe(p));
      }
      const j = joints.get(b.owner.id);
      if (!j) return colour("--hub");
      if (picked?.is === "joint" && picked.id === j.id) return colour("--accent-soft");
      return colour(j.assumed ? "--bad" : paint.joint(j));
    };
  }, [frame, paint, picked, colour]);

  const hover = (b: Body | undefined) => onHover(b?.owner);
  return (
    <>
      <Floor frame={frame} contacts={paint.contacts} colour={colour} />
      {shapeNames.map((k) => (
        <Bunch
          key={k}
          kind={k}
          bodies={bodies}
          geometry={geometry.get(k)}
          material={material}
          tint={tint}
          onHover={hover}
          onPick={(b) => (b.insertion && paint.rings > 1 ? onRing(b.insertion) : onPick(b.owner))}
        />
      ))}
    </>
  );
}

/** Reads the page's colours as they stand in this theme. */
function colours() {
  const style = getComputedStyle(document.documentElement);
  const seen = new Map<string, Color>();
  return (name: string) => {
    let c = seen.get(name);
    if (!c) {
      c = new Color(style.getPropertyValue(name).trim() || "#888888");
      seen.set(name, c);
    }
    return c;
  };
}

interface BunchProps {
  kind: Shape;
  bodies: Bodies;
  geometry?: { body: BufferGeometry; outline?: BufferGeometry };
  material: { body: ShaderMaterial; ink: ShaderMaterial };
  tint: (b: Body, kind: Shape) => Color;
  onPick: (b: Body) => void;
  onHover: (b: Body | undefined) => void;
}

/** All bodies of one shape, drawn at once, with their outlines. */
function Bunch({ kind, bodies, geometry, material, tint, onPick, onHover }: BunchProps) {
  const all = bodies[kind];
  const mesh = useRef<InstancedMesh>(null);
  const outline = useRef<InstancedMesh>(null);
  const invalidate = useThree((s) => s.invalidate);
  useLayoutEffect(() => {
    const m = mesh.current;
    if (!m) return;
    all.forEach((b, i) => {
      m.setMatrixAt(i, b.matrix);
    });
    m.instanceMatrix.needsUpdate = true;
    if (outline.current) outline.current.instanceMatrix = m.instanceMatrix;
    m.computeBoundingSphere();
    m.computeBoundingBox();
    invalidate();
  }, [all, invalidate]);
  useLayoutEffect(() => {
    const m = mesh.current;
    if (!m) return;
    all.forEach((b, i) => {
      m.setColorAt(i, tint(b, kind));
    });
    if (m.instanceColor) m.instanceColor.needsUpdate = true;
    invalidate();
  }, [all, tint, kind, invalidate]);
  if (all.length === 0 || !geometry) return null;
  const at = (e: ThreeEvent<MouseEvent>) => (e.instanceId === undefined ? undefined : all[e.instanceId]);
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: a body in a scene, not an element of the page */}
      <instancedMesh
        key={all.length}
        ref={mesh}
        args={[geometry.body, material.body, all.length]}
        frustumCulled={false}
        onClick={(e) => {
          e.stopPropagation();
          const b = at(e);
          if (b && e.delta < 5) onPick(b);
        }}
        onPointerMove={(e) => {
          e.stopPropagation();
          if (e.buttons === 0) onHover(at(e));
        }}
        onPointerOut={() => onHover(undefined)}
      />
      {geometry.outline && (
        <instancedMesh
          key={`ink ${all.length}`}
          ref={outline}
          args={[geometry.outline, material.ink, all.length]}
          frustumCulled={false}
          raycast={() => null}
        />
      )}
    </>
  );
}

/** The floor as a faint grid, with a spot where each body rests on it. */
function Floor({ frame, contacts, colour }: { frame: PlanFrame; contacts: boolean; colour: (name: string) => Color }) {
  const grid = useMemo(() => {
    const box = boxOf(frame);
    const z = inches(frame.floor) - 0.02;
    const pitch = frame.units === "mm" ? 250 / 25.4 : 12;
    const margin = pitch / 2;
    const [x0, x1] = [Math.floor((box.min.x - margin) / pitch) * pitch, Math.ceil((box.max.x + margin) / pitch) * pitch];
    const [y0, y1] = [Math.floor((box.min.y - margin) / pitch) * pitch, Math.ceil((box.max.y + margin) / pitch) * pitch];
    const points: number[] = [];
    const many = Math.max(x1 - x0, y1 - y0) / pitch > 200;
    for (let x = x0; !many && x <= x1 + 1e-6; x += pitch) points.push(x, y0, z, x, y1, z);
    for (let y = y0; !many && y <= y1 + 1e-6; y += pitch) points.push(x0, y, z, x1, y, z);
    const g = new BufferGeometry();
    g.setAttribute("position", new BufferAttribute(new Float32Array(points), 3));
    return new LineSegments(g, new LineBasicMaterial());
  }, [frame]);
  const spot = useMemo(() => new CircleGeometry(1, 20), []);
  const ink = useMemo(() => new MeshBasicMaterial({ depthWrite: false, polygonOffset: true, polygonOffsetFactor: -2 }), []);
  const bad = useMemo(() => ink.clone(), [ink]);
  (grid.material as LineBasicMaterial).color = colour("--grid");
  ink.color = colour("--good");
  bad.color = colour("--bad");
  return (
    <>
      <primitive object={grid} raycast={() => null} />
      {contacts &&
        frame.contacts.map((c, i) => (
          <mesh
            key={`${c.joint} ${i}`}
            geometry={spot}
            material={c.gap > 0 ? bad : ink}
            position={[inches(c.at[0] as number), inches(c.at[1] as number), inches(frame.floor) - 0.01]}
            scale={[0.55, 0.55, 1]}
            raycast={() => null}
          />
        ))}
    </>
  );
}
