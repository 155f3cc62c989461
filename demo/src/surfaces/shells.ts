import { fractal, noise, smooth } from '../noise.ts';
import { randomFrom } from '../random.ts';
import { emptyScene, fillScene, type Pose, type Scene, surfacePoint } from '../scene.ts';

interface Shell {
  u: number;
  v: number;
  length: number;
  breadth: number;
  turn: number;
  lift: number;
  lean: number;
  leanTurn: number;
  inside: boolean;
  tone: number;
  warmth: number;
  mauve: number;
  seed: number;
}

function scatter(
  halfU: number,
  halfV: number,
  perMillion: number,
  small: number,
  large: number,
  seed: number,
): Shell[] {
  const random = randomFrom(seed);
  const count = Math.round((4 * halfU * halfV * perMillion) / 1e6);
  return Array.from({ length: count }, (_, k) => {
    const length = small + (large - small) * random() ** 1.6;
    return {
      u: (2 * random() - 1) * halfU,
      v: (2 * random() - 1) * halfV,
      length,
      breadth: length * (0.52 + 0.3 * random()),
      turn: 2 * Math.PI * random(),
      lift: 1 + 5 * random(),
      lean: 0.28 * random() ** 1.5,
      leanTurn: 2 * Math.PI * random(),
      inside: random() < 0.36,
      tone: 0.42 + 0.34 * random(),
      warmth: random(),
      mauve: random() ** 3,
      seed: seed * 7919 + k,
    };
  });
}

/** Square of the farthest a ruffled outline can reach, in half lengths. */
const OUTERMOST = 1.5;

/** A place on a shell, about its middle: along and across it in half lengths, and in mm on the ground. */
interface ShellPlace {
  px: number;
  py: number;
  u: number;
  v: number;
  /** How high the shell's lean carries it, in mm, by each axis of the ground. */
  rise: readonly [number, number];
}

/** Height of a shell at a place, and what its colour goes by; null beyond its outline. */
function shapeAt(s: Shell, { px, py, u, v, rise }: ShellPlace) {
  // A teardrop: narrow at the hinge (px = −1), broad at the lip, its outline ruffled.
  const angle = Math.atan2(py, px);
  const ruffle =
    1 +
    0.11 * noise(2.1 * Math.cos(angle) + 9, 2.1 * Math.sin(angle) + s.seed * 0.37, s.seed) +
    0.05 * noise(7 * Math.cos(angle), 7 * Math.sin(angle), s.seed + 5);
  const pinch = 1 - 0.34 * smooth(0.2, -1, px);
  const rho = Math.hypot(px, py / pinch) / ruffle;
  if (rho >= 1) return null;
  // Growth rings are centred on the hinge.
  const ring = Math.hypot(px + 0.82, 0.8 * py);
  const wave = ring * 9 + 1.5 * noise(px * 2.2, py * 2.2 + s.seed, s.seed + 9);
  const saw = wave - Math.floor(wave);
  const scale = s.length / 60;
  const dome = s.inside ? -2.6 * (1 - rho * rho) : 5.2 * (1 - rho * rho);
  const step = s.inside ? 0.06 * Math.sin(wave * 2) : 1.05 * (1 - saw) ** 1.5;
  const flute = s.inside ? 0 : 0.5 * noise(angle * 5, 2 * rho, s.seed + 11) * rho;
  const rim = 1.6 * smooth(1, 0.9, rho);
  const fine = 0.2 * fractal(u / 2.5, v / 2.5, 2, s.seed + 13);
  const height = s.lift + scale * (dome + step + flute) + rim * Math.min(1, scale) + fine + rise[0] + rise[1];
  return { height, ring, saw, rho };
}

/** Albedo of a shell at a place. */
function colourAt(
  s: Shell,
  { u, v }: ShellPlace,
  { ring, saw, rho }: { ring: number; saw: number; rho: number },
) {
  const band = 0.5 + 0.5 * noise(ring * 5.5, s.seed * 0.13, s.seed + 17);
  const chalk = fractal(u / 7, v / 7, 3, s.seed + 19);
  let tone = s.tone * (1 + 0.16 * chalk);
  let warm = 0.06 + 0.12 * s.warmth;
  let mauve = 0;
  if (s.inside) {
    tone = 0.7 + 0.1 * s.tone + 0.05 * chalk - 0.22 * s.mauve * smooth(0.5, 0.9, rho);
    mauve = 0.07 * s.mauve * smooth(0.3, 0.9, rho) + 0.02;
    warm *= 0.4;
  } else {
    tone *= 0.72 + 0.42 * band - 0.3 * smooth(0.75, 1, saw);
    warm += 0.14 * (1 - band);
  }
  const grime = 1 - 0.3 * smooth(0.1, 0.6, fractal(u / 30, v / 30, 3, 71));
  tone *= grime;
  return [
    Math.min(0.92, tone * (1 + 0.5 * warm + mauve)),
    Math.min(0.92, tone * (1 - 0.12 * warm - mauve)),
    Math.min(0.92, tone * (1 - 0.95 * warm + 0.6 * mauve)),
  ];
}

function lay(scene: Scene, pose: Pose, shells: Shell[]): void {
  const { width, height, mmPerPixel, relief } = scene;
  const [r, g, b] = scene.albedo;
  const turn = (pose.turnDegrees * Math.PI) / 180;
  const placeU = new Float32Array(width * height);
  const placeV = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      [placeU[y * width + x], placeV[y * width + x]] = surfacePoint(scene, pose, x, y);
    }
  }
  for (const s of shells) {
    // Back from mm to about where it lies in the picture; the box is generous for the bow.
    const cx = (s.u * Math.cos(turn) - s.v * Math.sin(turn)) / mmPerPixel + width / 2;
    const cy = (s.u * Math.sin(turn) + s.v * Math.cos(turn)) / mmPerPixel + height / 2;
    const reach = (s.length / mmPerPixel) * 0.62 + 0.04 * Math.hypot(cx - width / 2, cy - height / 2) + 2;
    const c = Math.cos(s.turn);
    const d = Math.sin(s.turn);
    const lx = Math.cos(s.leanTurn) * s.lean;
    const ly = Math.sin(s.leanTurn) * s.lean;
    for (let y = Math.max(0, Math.floor(cy - reach)); y <= Math.min(height - 1, cy + reach); y++) {
      for (let x = Math.max(0, Math.floor(cx - reach)); x <= Math.min(width - 1, cx + reach); x++) {
        const i = y * width + x;
        const u = placeU[i];
        const v = placeV[i];
        const du = u - s.u;
        const dv = v - s.v;
        const px = ((du * c + dv * d) / s.length) * 2;
        const py = ((-du * d + dv * c) / s.breadth) * 2;
        if (px * px + py * py > OUTERMOST) continue;
        const place: ShellPlace = { px, py, u, v, rise: [lx * du, ly * dv] };
        const shape = shapeAt(s, place);
        if (!shape || shape.height <= relief[i]) continue;
        relief[i] = shape.height;
        [r[i], g[i], b[i]] = colourAt(s, place, shape);
      }
    }
  }
}

/** Oyster-shell path: whole and broken shells bedded in their own grit. */
export function shells(width: number, height: number, mmPerPixel: number, pose: Pose): Scene {
  const scene = fillScene(emptyScene(width, height, mmPerPixel), pose, (u, v, out) => {
    const grit = fractal(u / 3, v / 3, 3, 51);
    out.h = 0.8 * fractal(u / 60, v / 60, 3, 52) + 0.7 * grit - 1;
    const tone = 0.26 * (1 + 0.4 * grit + 0.3 * fractal(u / 40, v / 40, 3, 53));
    out.r = tone * 1.08;
    out.g = tone * 0.95;
    out.b = tone * 0.78;
  });
  const halfU = (width * mmPerPixel) / 2 + 60;
  const halfV = (height * mmPerPixel) / 2 + 60;
  lay(scene, pose, scatter(halfU, halfV, 42000, 4, 12, 61));
  lay(scene, pose, scatter(halfU, halfV, 6500, 14, 34, 62));
  lay(scene, pose, scatter(halfU, halfV, 1500, 40, 84, 63));
  lay(scene, pose, scatter(halfU, halfV, 5200, 5, 16, 64));
  return scene;
}
