import CameraControls from "camera-controls";
import {
  Box3,
  Matrix4,
  OrthographicCamera,
  PerspectiveCamera,
  Quaternion,
  Raycaster,
  Sphere,
  Spherical,
  Vector2,
  Vector3,
  Vector4,
} from "three";

CameraControls.install({ THREE: { Box3, Matrix4, Quaternion, Raycaster, Sphere, Spherical, Vector2, Vector3, Vector4 } });

/** The standard views, and what turns the view a little. */
export type View = "corner" | "front" | "side" | "top" | "left" | "right" | "up" | "down" | "nearer" | "farther" | "fit";

/** From where each standard view looks: turned about the upright, and raised, in degrees. */
const standard: Partial<Record<View, [number, number]>> = { corner: [32, 20], front: [0, 0], side: [90, 0], top: [0, 89.9] };

const lens = 24; // degrees, of the perspective view: mild
const deg = Math.PI / 180;

/** Room round the frame for rulers and sizes, in pixels. */
export interface Room {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** The camera and the hand that turns it. Lengths are inches, z is up. */
export class Rig {
  private static made = 0;
  readonly id = ++Rig.made;
  readonly flat = new OrthographicCamera();
  readonly deep = new PerspectiveCamera(lens);
  readonly controls: CameraControls;
  private size = new Vector2(1, 1);
  private box = new Box3();
  room: Room = { left: 80, right: 60, top: 50, bottom: 80 };
  /** The room that the whole frame was shown with, for as long as nobody moved the view. */
  private shownWith?: Room;
  still = false;
  /** What is picked: a step nearer goes there. */
  picked?: Vector3;

  constructor(element: HTMLElement, changed: () => void) {
    for (const c of [this.flat, this.deep]) {
      c.up.set(0, 0, 1);
      // what React Three Fiber would set by itself
      (c as { manual?: boolean }).manual = true;
    }
    this.controls = new CameraControls(this.flat, element);
    this.controls.updateCameraUp();
    this.controls.dollyToCursor = true;
    this.controls.smoothTime = 0.12;
    this.controls.draggingSmoothTime = 0.04;
    this.controls.minZoom = 0.05;
    this.controls.maxZoom = 400;
    for (const e of ["control", "controlstart", "controlend", "wake", "update", "transitionstart"] as const)
      this.controls.addEventListener(e, changed);
    this.controls.addEventListener("control", () => {
      this.shownWith = undefined;
    });
  }

  /** Whether what stands round the frame needs more room than the frame was shown with, and the view is still as it was shown. */
  get cramped() {
    const was = this.shownWith;
    return was !== undefined && (["left", "right", "top", "bottom"] as const).some((side) => this.room[side] > was[side]);
  }

  get camera() {
    return this.controls.camera as OrthographicCamera | PerspectiveCamera;
  }

  resize(width: number, height: number) {
    this.size.set(Math.max(1, width), Math.max(1, height));
    Object.assign(this.flat, { left: -width / 2, right: width / 2, top: height / 2, bottom: -height / 2, near: -5000, far: 20000 });
    Object.assign(this.deep, { aspect: this.size.x / this.size.y, near: 1, far: 50000 });
    this.flat.updateProjectionMatrix();
    this.deep.updateProjectionMatrix();
  }

  /** Says how large the frame is; the view stays. */
  frame(box: Box3) {
    this.box.copy(box);
  }

  /** Shows the whole frame from where the view stands now, or from a standard one. */
  show(view: View = "fit") {
    const moved = !this.still;
    const to = standard[view];
    if (to) {
      const a = nearest(this.controls.azimuthAngle, to[0] * deg);
      void this.controls.rotateTo(a, (90 - to[1]) * deg, moved);
      this.fit(a, (90 - to[1]) * deg, moved);
      return;
    }
    const step = 15 * deg;
    this.shownWith = undefined;
    if (view === "left") void this.controls.rotate(-step, 0, moved);
    else if (view === "right") void this.controls.rotate(step, 0, moved);
    else if (view === "up") void this.controls.rotate(0, -step, moved);
    else if (view === "down") void this.controls.rotate(0, step, moved);
    else if (view === "nearer" || view === "farther") {
      const by = view === "nearer" ? 1.25 : 0.8;
      if (view === "nearer" && this.picked) void this.controls.moveTo(this.picked.x, this.picked.y, this.picked.z, moved);
      if (this.camera === this.flat) void this.controls.zoomTo(this.flat.zoom * by, moved);
      else void this.controls.dollyTo(this.controls.distance / by, moved);
    } else this.fit(this.controls.azimuthAngle, this.controls.polarAngle, moved);
  }

  /** Pixels per inch and the middle at which the whole box is seen from a direction. */
  private fit(azimuth: number, polar: number, moved: boolean) {
    const right = new Vector3(Math.cos(azimuth), Math.sin(azimuth), 0);
    const back = new Vector3(Math.sin(azimuth) * Math.sin(polar), -Math.cos(azimuth) * Math.sin(polar), Math.cos(polar));
    const upward = back.clone().cross(right);
    const lo = new Vector2(Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY);
    const hi = lo.clone().negate();
    const centre = this.box.getCenter(new Vector3());
    for (let i = 0; i < 8; i++) {
      const c = new Vector3(
        i & 1 ? this.box.max.x : this.box.min.x,
        i & 2 ? this.box.max.y : this.box.min.y,
        i & 4 ? this.box.max.z : this.box.min.z,
      ).sub(centre);
      const q = new Vector2(c.dot(right), c.dot(upward));
      lo.min(q);
      hi.max(q);
    }
    const room = this.room;
    this.shownWith = room;
    const w = Math.max(40, this.size.x - room.left - room.right);
    const h = Math.max(40, this.size.y - room.top - room.bottom);
    const zoom = Math.min(w / Math.max(1, hi.x - lo.x), h / Math.max(1, hi.y - lo.y));
    // the free part of the picture is not its middle
    const dx = (lo.x + hi.x) / 2 - (room.left - room.right) / 2 / zoom;
    const dy = (lo.y + hi.y) / 2 - (room.bottom - room.top) / 2 / zoom;
    const target = centre.addScaledVector(right, dx).addScaledVector(upward, dy);
    void this.controls.moveTo(target.x, target.y, target.z, moved);
    void this.controls.setFocalOffset(0, 0, 0, moved);
    this.flat.userData.fit = zoom;
    if (this.camera === this.flat) {
      void this.controls.zoomTo(zoom, moved);
      void this.controls.dollyTo(500, false);
    } else void this.controls.dollyTo(this.distanceAt(zoom), moved);
  }

  private distanceAt(zoom: number) {
    return this.size.y / (2 * Math.tan((lens / 2) * deg) * zoom);
  }

  /** Changes between parallel and perspective with the frame as large as it was; one that still moves, as large as it was to be. */
  perspective(on: boolean) {
    if (on === (this.camera === this.deep)) return;
    const position = this.controls.getPosition(new Vector3());
    const target = this.controls.getTarget(new Vector3());
    const aim = { zoom: (JSON.parse(this.controls.toJSON()) as { zoom: number }).zoom, distance: position.distanceTo(target) };
    const away = position.sub(target).normalize();
    if (on) {
      const d = this.distanceAt(aim.zoom);
      this.controls.camera = this.deep;
      this.place(target, away, d);
    } else {
      const zoom = this.size.y / (2 * Math.tan((lens / 2) * deg) * aim.distance);
      this.controls.camera = this.flat;
      this.place(target, away, 500);
      void this.controls.zoomTo(zoom, false);
    }
  }

  private place(target: Vector3, away: Vector3, distance: number) {
    void this.controls.setLookAt(
      target.x + away.x * distance,
      target.y + away.y * distance,
      target.z + away.z * distance,
      target.x,
      target.y,
      target.z,
      false,
    );
  }

  dispose() {
    this.controls.dispose();
  }
}

/** The turn nearest to where the view stands that ends at the same angle. */
function nearest(from: number, to: number) {
  const round = 2 * Math.PI;
  return to + Math.round((from - to) / round) * round;
}
