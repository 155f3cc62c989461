import { expect } from 'chai';
import type { Pixels } from '../../../src/pixels/pixels.ts';
import { decideShots, type LightsChosen } from '../../../src/stations/source/shots/decide.ts';
import type { ShotsDecision } from '../../../src/stations/source/shots/decision.ts';
import { movedTo, UNMOVED } from '../../../src/stations/source/shots/homography.ts';
import { directionOf, type LightDirection, vectorOf } from '../../../src/stations/source/shots/light.ts';
import { type SolvedShots, solveShots } from '../../../src/stations/source/shots/solve-shots.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { ALONE } from '../../../src/team/team.ts';
import { photographed, type Scene, type Shot, sceneOf, withBall } from './scene.ts';

const SIZE = 256;
const DEGREES = 180 / Math.PI;

/** Lamps around the surface, at heights that differ by turns. */
const around = (count: number, height = 40, spread = 6): LightDirection[] =>
  Array.from({ length: count }, (_, k) => ({
    azimuth: (20 + (360 * k) / count) % 360,
    height: height + (k % 2 ? spread : -spread),
  }));

const shotsOf = (scene: Scene, lights: LightDirection[], more: Partial<Shot> = {}, gain = 0.8): Pixels[] =>
  lights.map((light, k) => photographed(scene, { light, seed: k + 1, ...more }, gain));

const chosen = (more: Partial<LightsChosen>): LightsChosen => ({
  lightsFrom: 'found',
  lightDirections: [],
  ball: null,
  isInverted: false,
  shots: [],
  ...more,
});
const typed = (lightDirections: LightDirection[]) => chosen({ lightsFrom: 'typed', lightDirections });

const settle = (shots: Pixels[], how: LightsChosen) => decideShots(shots, how, false, PLAIN_CONTEXT);

function solve(
  shots: Pixels[],
  decided: ShotsDecision,
  distance = 0,
  context = PLAIN_CONTEXT,
): Promise<SolvedShots> {
  if (decided.refused) throw new Error(decided.refused.message);
  const lights = { vectors: decided.shots.map(({ light }) => light), ambient: decided.ambient, distance };
  return solveShots(
    shots,
    decided.shots.map(({ homography }) => homography),
    lights,
    false,
    context,
  );
}

/** Mean angle between solved normals and true ones, degrees; a border is left out where the camera moved. */
function angleTo({ normal }: SolvedShots, scene: Scene, border = 0): number {
  let [sum, count] = [0, 0];
  for (let y = border; y < scene.size - border; y++) {
    for (let x = border; x < scene.size - border; x++) {
      const i = y * scene.size + x;
      const [a, b, c] = normal.planes.map((plane) => 2 * plane[i] - 1);
      const along = a * scene.normal[0][i] + b * scene.normal[1][i] + c * scene.normal[2][i];
      sum += Math.acos(Math.min(1, along)) * DEGREES;
      count++;
    }
  }
  return sum / count;
}

/** Mean error of the albedo as a share, its scale left open. */
function albedoError({ albedo }: SolvedShots, scene: Scene): number {
  const ratios = albedo.planes.flatMap((plane, c) =>
    Array.from(plane, (value, i) => value / scene.albedo[c][i]),
  );
  const mean = ratios.reduce((a, b) => a + b, 0) / ratios.length;
  return ratios.reduce((sum, ratio) => sum + Math.abs(ratio / mean - 1), 0) / ratios.length;
}

const between = (a: LightDirection, b: LightDirection): number => {
  const [u, v] = [vectorOf(a), vectorOf(b)];
  return Math.acos(Math.min(1, u[0] * v[0] + u[1] * v[1] + u[2] * v[2])) * DEGREES;
};

describe('several shots of one surface', function () {
  this.timeout(240_000);

  it('a direction and its vector are the same thing', () => {
    for (const direction of around(7))
      expect(between(directionOf(vectorOf(direction)), direction)).to.be.below(1e-4);
    expect(vectorOf({ azimuth: 90, height: 0 })[0]).to.be.closeTo(1, 1e-12);
    expect(vectorOf({ azimuth: 0, height: 0 })[1]).to.be.closeTo(1, 1e-12);
  });

  it('four shots of a matte surface in known light give its normals within 1° and its albedo within 3 %', async () => {
    const scene = sceneOf(SIZE);
    const lights = around(4);
    const shots = shotsOf(scene, lights, { noise: 0.002 });
    const solved = await solve(shots, await settle(shots, typed(lights)));
    expect(angleTo(solved, scene)).to.be.below(1);
    expect(albedoError(solved, scene)).to.be.below(0.03);
    expect(solved.unsolved).to.equal(0);
  });

  it('with some shine, cast shadows and noise within 2° and 3 %', async () => {
    const scene = sceneOf(SIZE, { shine: 0.06 });
    const lights = around(4, 36);
    const shots = shotsOf(scene, lights, { noise: 0.003 });
    const solved = await solve(shots, await settle(shots, typed(lights)));
    expect(angleTo(solved, scene)).to.be.below(2);
    expect(albedoError(solved, scene)).to.be.below(0.03);
  });

  it('lamps of different strength are told apart, and light from everywhere by what it leaves in shadows', async () => {
    const scene = sceneOf(SIZE);
    const lights = around(4, 30, 5);
    const strengths = [1, 0.7, 1.2, 0.85];
    const shots = lights.map((light, k) =>
      photographed(scene, { light, strength: strengths[k], ambient: 0.12, seed: k + 1 }, 0.7),
    );
    const decided = await settle(shots, typed(lights));
    const found = decided.shots.map(({ light }) => Math.hypot(...light));
    for (const [k, strength] of strengths.entries())
      expect(found[k]).to.be.closeTo(strength, 0.04 * strength);
    expect(decided.ambient).to.be.within(0.08, 0.14);
    expect(angleTo(await solve(shots, decided), scene)).to.be.below(1.5);
  });

  it('of a lamp that is near its distance makes the difference', async () => {
    const scene = sceneOf(SIZE);
    const lights = around(4, 42);
    const shots = shotsOf(scene, lights, { distance: 1.6 });
    const decided = await settle(shots, typed(lights));
    const near = angleTo(await solve(shots, decided, 1.6), scene);
    expect(near).to.be.below(1.5);
    expect(angleTo(await solve(shots, decided, 0), scene)).to.be.above(2 * near);
  });

  it('six shots in light that is not known give normals within 5°, raised where it is raised', async () => {
    for (const seed of [1, 5]) {
      const scene = sceneOf(SIZE, { seed });
      const lights = around(6, 42, 8);
      const shots = shotsOf(scene, lights, { noise: 0.002 });
      const solved = await solve(shots, await settle(shots, chosen({})));
      expect(angleTo(solved, scene), `scene ${seed}`).to.be.below(5);
      const turned = await solve(shots, await settle(shots, chosen({ isInverted: true })));
      expect(angleTo(turned, scene)).to.be.above(15);
    }
  });

  const EDGE = 384;
  const MIDDLE = (EDGE - 1) / 2;
  /** Cameras that moved by so many pixels right and down, and turned by so many degrees. */
  const moved = [
    [0, 0, 0],
    [20, -7, 1],
    [-12.3, 15.6, -1],
    [0.4, 0.3, 0],
    [18, 18, 0.5],
    [3.3, -5.5, 0.7],
  ].map(([dx, dy, degrees]) => {
    const [c, s] = [Math.cos(degrees / DEGREES), Math.sin(degrees / DEGREES)];
    return (x: number, y: number): [number, number] => {
      const [u, v] = [x - MIDDLE, y - MIDDLE];
      return [c * u - s * v + dx + MIDDLE, s * u + c * v + dy + MIDDLE];
    };
  });
  /** How far from where it is seen in the first shot each point comes to lie, in pixels: the root of the mean square of each shot. */
  const missesOf = ({ shots }: ShotsDecision): number[] =>
    shots.map(({ homography }, k) => {
      let squares = 0;
      let count = 0;
      for (let y = 40; y < EDGE - 32; y += 40) {
        for (let x = 40; x < EDGE - 32; x += 40) {
          const [u, v] = movedTo(homography ?? UNMOVED, (x - MIDDLE) / EDGE, (y - MIDDLE) / EDGE);
          const [px, py] = moved[k](u * EDGE + MIDDLE, v * EDGE + MIDDLE);
          squares += (px - x) ** 2 + (py - y) ** 2;
          count++;
        }
      }
      return Math.sqrt(squares / count);
    });
  const grey = (scene: Scene): Scene => ({ ...scene, albedo: scene.albedo.map(() => scene.albedo[0]) });

  for (const [what, scene, lights, ambient, most] of [
    ['six shots', sceneOf(EDGE), around(6, 45), 0, 0.03],
    ['four shots in low lamps, with deep shadows', sceneOf(EDGE, { seed: 3 }), around(4, 35), 0, 0.06],
    ['four shots with light from everywhere', sceneOf(EDGE, { seed: 5 }), around(4, 45), 0.06, 0.06],
    ['four shots of a grey surface', grey(sceneOf(EDGE, { seed: 2 })), around(4, 45), 0, 0.06],
    ['three shots of a grey surface', grey(sceneOf(EDGE, { seed: 2 })), around(3, 60, 0), 0, 0.1],
  ] as const) {
    it(`a camera that moved up to 20 px and turned by 1° is brought back: ${what}`, async () => {
      const shots = lights.map((light, k) =>
        photographed(scene, { light, ambient, noise: 0.002, camera: moved[k], seed: k + 1 }, 0.8),
      );
      const decided = await settle(shots, typed(lights));
      expect(decided.refused).to.equal(null);
      for (const [k, miss] of missesOf(decided).entries()) expect(miss, `shot ${k + 1}`).to.be.below(most);
      expect(decided.shots[1].moved * EDGE).to.be.above(15);
      expect(angleTo(await solve(shots, decided), scene, 40)).to.be.below(shots.length > 3 ? 2 : 4);
    });
  }

  it('half a pixel that a hand moved is found in a grey surface', async () => {
    const scene = grey(sceneOf(EDGE, { seed: 4 }));
    const lights = around(4, 45);
    const shots = lights.map((light, k) =>
      photographed(
        scene,
        { light, noise: 0.002, camera: k === 2 ? (x, y) => [x + 0.5, y - 0.4] : undefined, seed: k + 1 },
        0.8,
      ),
    );
    const decided = await settle(shots, typed(lights));
    expect(decided.shots[2].moved * EDGE).to.be.closeTo(Math.hypot(0.5, 0.4), 0.05);
    expect(Math.max(decided.shots[1].moved, decided.shots[3].moved) * EDGE).to.be.below(0.1);
  });

  it('directions are read from a ball, matte or shiny, within 3°', async () => {
    const scene = sceneOf(SIZE);
    const lights = around(4, 48);
    const ball = { x: 0.8, y: 0.2, radius: 0.12 };
    for (const isShiny of [false, true]) {
      const shots = shotsOf(scene, lights).map((shot, k) => withBall(shot, ball, lights[k], isShiny));
      const decided = await settle(shots, chosen({ lightsFrom: 'ball', ball }));
      expect(decided.refused).to.equal(null);
      for (const [k, { light }] of decided.shots.entries()) {
        expect(between(directionOf(light), lights[k]), `shiny ${isShiny}, shot ${k + 1}`).to.be.below(3);
      }
    }
  });

  it('any number of threads gives the same bits', async () => {
    const scene = sceneOf(128);
    const lights = around(5);
    const shots = shotsOf(scene, lights);
    const decided = await settle(shots, typed(lights));
    const alone = await solve(shots, decided);
    const three = await solve(shots, decided, 0, { ...PLAIN_CONTEXT, team: { ...ALONE, size: 3 } });
    expect(three.normal.planes).to.deep.equal(alone.normal.planes);
    expect(three.albedo.planes).to.deep.equal(alone.albedo.planes);
    expect(three.residual).to.deep.equal(alone.residual);
  });

  it('parts that are clipped in one of three shots are not solved, and said so', async () => {
    const scene = sceneOf(128);
    const lights = around(3, 50, 0);
    const shots = shotsOf(scene, lights, {}, 2.4);
    const solved = await solve(shots, await settle(shots, typed(lights)));
    expect(solved.unsolved).to.be.within(0.005, 0.9);
    const four = around(4, 50, 0);
    const more = [...shotsOf(scene, four.slice(0, 3), {}, 2.4), ...shotsOf(scene, four.slice(3), {}, 0.6)];
    const better = await solve(more, await settle(more, typed(four)));
    expect(better.unsolved).to.be.below(solved.unsolved);
  });

  describe('is refused, in words', () => {
    const scene = sceneOf(128);
    const lights = around(4);
    const shots = shotsOf(scene, lights);
    const whyNot = async (given: Pixels[], how: LightsChosen) => (await settle(given, how)).refused;

    it('two shots that are the same picture', async () => {
      const why = await whyNot([...shots, shots[1]], typed([...lights, lights[1]]));
      expect(why?.message).to.equal('Shots 2 and 5 are the same picture.');
    });

    it('two shots, and three in unknown light', async () => {
      expect((await whyNot(shots.slice(0, 2), typed(lights)))?.code).to.equal('few_shots');
      expect((await whyNot(shots.slice(0, 3), chosen({})))?.message).to.contain('With three shots');
    });

    it('a shot of another surface', async () => {
      const other = photographed(sceneOf(128, { seed: 40 }), { light: lights[3], seed: 9 }, 0.8);
      const why = await whyNot(
        [...shots.slice(0, 3), other, ...shotsOf(scene, around(6)).slice(4)],
        typed(around(6)),
      );
      expect(why?.message).to.equal('Shot 4 does not show the surface that the others show.');
    });

    it('all light from one side', async () => {
      const side = [80, 85, 90, 95].map((azimuth) => ({ azimuth, height: 40 }));
      const why = await whyNot(shotsOf(scene, side), typed(side));
      expect(why?.message).to.contain('nearly one side');
    });

    it('a ball cut by the frame, and one that is not marked', async () => {
      const cut = chosen({ lightsFrom: 'ball', ball: { x: 0.98, y: 0.5, radius: 0.08 } });
      expect((await whyNot(shots, cut))?.message).to.equal('The ball is cut by the edge of the photo.');
      expect((await whyNot(shots, chosen({ lightsFrom: 'ball' })))?.message).to.equal(
        'No ball is marked yet.',
      );
    });

    it('a camera that moved beyond repair: parts of the surface shift against each other', async () => {
      const bent = (x: number, y: number): [number, number] => [
        x + 5 * Math.sin((4 * Math.PI * y) / 128),
        y + 5 * Math.sin((4 * Math.PI * x) / 128),
      ];
      const moved = photographed(scene, { light: lights[3], camera: bent, seed: 4 }, 0.8);
      const why = await whyNot([...shots.slice(0, 3), moved], typed(lights));
      expect(why?.code).to.be.oneOf(['moved_camera', 'strange_shot']);
      expect(why?.message).to.contain('Shot 4');
    });

    it('a shot of another size', async () => {
      const other = photographed(sceneOf(64), { light: lights[3] });
      expect((await whyNot([...shots.slice(0, 3), other], typed(lights)))?.message).to.contain(
        'Shot 4 is 64 × 64',
      );
    });

    it('a direction that nobody set', async () => {
      const why = await whyNot(shots, typed(lights.slice(0, 3)));
      expect(why?.message).to.equal('The light of shot 4 has no direction yet.');
    });
  });
});
