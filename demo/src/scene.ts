/** A surface as it lies before the camera: what a photo is then taken of. */
export interface Scene {
  width: number;
  height: number;
  mmPerPixel: number;
  /** Linear reflectance, three planes. */
  albedo: [Float32Array, Float32Array, Float32Array];
  /** Height in mm. */
  relief: Float32Array;
}

/** How the camera stood: turn and bow of the picture. */
export interface Pose {
  turnDegrees: number;
  /** Barrel bow: share by which the corner is drawn in. */
  bow: number;
}

export interface Point {
  /** Height in mm. */
  h: number;
  r: number;
  g: number;
  b: number;
}

/** A scene without any content. */
export function emptyScene(width: number, height: number, mmPerPixel: number): Scene {
  const plane = () => new Float32Array(width * height);
  return { width, height, mmPerPixel, albedo: [plane(), plane(), plane()], relief: plane() };
}

/** Where each pixel looks, in mm from the centre of view, under a pose. */
export function surfacePoint(scene: Scene, pose: Pose, x: number, y: number): [number, number] {
  const angle = (pose.turnDegrees * Math.PI) / 180;
  const half = Math.hypot(scene.width, scene.height) / 2;
  let px = x + 0.5 - scene.width / 2;
  let py = y + 0.5 - scene.height / 2;
  const bend = 1 + pose.bow * ((px * px + py * py) / (half * half));
  px *= bend * scene.mmPerPixel;
  py *= bend * scene.mmPerPixel;
  return [px * Math.cos(angle) + py * Math.sin(angle), -px * Math.sin(angle) + py * Math.cos(angle)];
}

/** Fills a scene from a function of the place in mm. */
export function fillScene(scene: Scene, pose: Pose, at: (u: number, v: number, out: Point) => void): Scene {
  const out: Point = { h: 0, r: 0, g: 0, b: 0 };
  const [r, g, b] = scene.albedo;
  for (let y = 0; y < scene.height; y++) {
    for (let x = 0; x < scene.width; x++) {
      const [u, v] = surfacePoint(scene, pose, x, y);
      at(u, v, out);
      const i = y * scene.width + x;
      scene.relief[i] = out.h;
      r[i] = out.r;
      g[i] = out.g;
      b[i] = out.b;
    }
  }
  return scene;
}
