import { fractal, noise, smooth } from '../noise.ts';
import { hash2 } from '../random.ts';
import { emptyScene, fillScene, type Pose, type Scene } from '../scene.ts';

const SPACING = 120;
const HALF_LENGTH = 210;
const HALF_BREADTH = 74;

interface Stroke {
  /** Place along the stroke and across it, in mm from its middle. */
  along: number;
  across: number;
  /** 0 at the outline, 1 in the middle. */
  inside: number;
  id: number;
}

const found: Stroke = { along: 0, across: 0, inside: 0, id: 0 };

/** The trowel stroke that lies on top at (u, v): long ovals, each laid over those before it. */
function topStroke(u: number, v: number): Stroke {
  const i0 = Math.floor(u / SPACING);
  const j0 = Math.floor(v / SPACING);
  let best = -1;
  for (let j = j0 - 2; j <= j0 + 2; j++) {
    for (let i = i0 - 2; i <= i0 + 2; i++) {
      const order = hash2(i, j, 110);
      if (order <= best) continue;
      const du = u - (i + hash2(i, j, 111)) * SPACING;
      const dv = v - (j + hash2(i, j, 112)) * SPACING;
      const turn = 0.5 + 1.9 * (hash2(i, j, 113) - 0.5);
      const c = Math.cos(turn);
      const s = Math.sin(turn);
      const along = du * c + dv * s;
      // Strokes are arcs of the arm, not straight.
      const across = -du * s + dv * c + (along * along) / 900;
      const rho = Math.hypot(along / HALF_LENGTH, across / HALF_BREADTH);
      if (rho >= 1) continue;
      best = order;
      found.along = along;
      found.across = across;
      found.inside = 1 - rho;
      found.id = order;
    }
  }
  if (best < 0) {
    found.along = u;
    found.across = v;
    found.inside = 0;
    found.id = 0;
  }
  return found;
}

/** Limewashed stucco: trowelled plaster under several coats of brushed wash, hairline cracks, some wear. */
export function stucco(width: number, height: number, mmPerPixel: number, pose: Pose): Scene {
  return fillScene(emptyScene(width, height, mmPerPixel), pose, (u0, v0, out) => {
    const u = u0 + 9 * noise(u0 / 45, v0 / 45, 11);
    const v = v0 + 9 * noise(u0 / 45, v0 / 45, 12);
    const stroke = topStroke(u, v);
    const lip = smooth(0.09, 0.005, stroke.inside);
    const facet = smooth(0, 0.35, stroke.inside);
    const drag = noise(stroke.along / 130, stroke.across / 3.4 + 90 * stroke.id, 13);
    const sand = fractal(u / 3.4, v / 3.4, 2, 14);
    const pits = smooth(0.5, 0.68, fractal(u / 7, v / 7, 3, 15)) * smooth(0, 0.4, noise(u / 90, v / 90, 29));
    // Cracks: the zero lines of a slow noise, only where another says so.
    const wander = noise(u / 230, v / 230, 18) + 0.12 * fractal(u / 30, v / 30, 2, 16);
    const crackHere = smooth(0.18, 0.4, fractal(u / 460, v / 460, 2, 19));
    const crack = crackHere * (1 - smooth(0, 0.008, Math.abs(wander)));
    const broad = fractal(u / 260, v / 260, 3, 20);
    out.h =
      2.4 * broad +
      0.9 * facet +
      0.7 * lip +
      0.22 * drag * facet +
      0.3 * sand -
      0.9 * pits -
      1.2 * crack +
      1.1 * (stroke.id - 0.5);
    // Wash: brushed crosswise, thin on what stands out.
    const brush = 0.5 * noise(u / 95, v / 3.2, 21) + 0.5 * noise(u / 3.6, v / 90, 22);
    const cover = 0.6 + 0.42 * fractal(u / 210, v / 210, 4, 23) + 0.1 * brush - 0.2 * lip;
    const bare = 0.85 * (1 - smooth(0.16, 0.5, cover + 0.14 * fractal(u / 16, v / 16, 3, 27)));
    const cloud = 0.05 * fractal(u / 150, v / 150, 4, 24) + 0.02 * fractal(u / 14, v / 14, 3, 25);
    const wash = 0.74 + cloud + 0.03 * brush + 0.03 * (stroke.id - 0.5);
    const earth = 0.46 + 0.07 * fractal(u / 22, v / 22, 3, 26) + 0.05 * sand;
    const dirt = 1 - 0.1 * smooth(0, 0.6, fractal(u / 70, v / 200, 4, 28)) - 0.5 * crack - 0.3 * pits;
    out.r = (wash * (1 - bare) + earth * 1.12 * bare) * dirt;
    out.g = (wash * 0.98 * (1 - bare) + earth * 0.96 * bare) * dirt;
    out.b = (wash * 0.92 * (1 - bare) + earth * 0.74 * bare) * dirt;
  });
}
