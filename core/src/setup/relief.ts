import { firstJoints } from '../stations/relief/joints/first.ts';
import { bestNet, CLEAR_NET, findNetsOf, type Nets } from '../stations/relief/joints/net.ts';
import type { ReliefSettings } from '../stations/relief/settings.ts';
import { percentiles } from '../statistics/statistics.ts';
import { runToEnd } from '../work/steps.ts';
import { proposedSettings, type SetupProposal, settingsTo } from './proposal.ts';
import type { SetupScene, SetupStep } from './scene.ts';

/** Lightness of the darkest twentieth of an occlusion map from which it is as good as blank. */
const BLANK = 0.93;
/** Distance of occlusion as a share of a face's edge. */
const FACE_SHARE = 0.3;
/** As a share of the tile's edge, where no faces are found. */
const EDGE_SHARE = 0.04;
/** Strength where it would be blank. */
const STRONGER = 2;

async function netsOf(scene: SetupScene): Promise<Nets> {
  const { outputs, frame } = await scene.evaluate('join');
  return runToEnd(findNetsOf(outputs.join!.picture, frame.edges));
}

function readingOf(scene: SetupScene, nets: Nets): SetupProposal[] {
  const { lines, score, isClear } = bestNet(nets);
  const { recipe } = scene;
  const polarity = isClear && lines === 'light' ? 'dark' : 'bright';
  const answer = (title: string, values: Partial<ReliefSettings>) => ({
    title,
    settings: settingsTo(recipe, 'relief', values),
  });
  const alternatives = [
    answer('Bright is high', { polarity: 'bright', joints: 'none' }),
    answer('Dark is high', { polarity: 'dark', joints: 'none' }),
  ];
  if (isClear) {
    alternatives.push(answer('Faces between joints', firstJoints(lines, recipe.stations.relief)));
  }
  return [
    {
      id: 'reading',
      station: 'relief',
      title: polarity === 'dark' ? 'Dark is high' : 'Bright is high',
      reason: isClear
        ? `Thin ${lines} lines close faces (${Math.round(100 * score)} %), as ${lines} joints do, and joints lie low.`
        : 'No net of joints was found that would tell: compare both readings.',
      settings: proposedSettings(recipe, 'relief', { polarity }),
      isGuess: true,
      alternatives,
    },
  ];
}

/** Occlusion by the size of the tile's features: a third of a face's edge; doubled in strength where the map is blank. */
async function occlusionOf(scene: SetupScene, { dark, light }: Nets): Promise<SetupProposal[]> {
  const { edgeMetres } = scene.recipe.stations.square;
  const net = dark.score >= light.score ? dark : light;
  const isFaced = net.score >= CLEAR_NET && net.faceArea !== null;
  const edgeMm = 1000 * edgeMetres;
  const first = isFaced ? FACE_SHARE * Math.sqrt(net.faceArea!) * edgeMm : EDGE_SHARE * edgeMm;
  const occlusionMm = Math.min(2000, Math.max(1, Math.round(first)));
  const { outputs } = await scene.evaluate('relief', { relief: { occlusionMm } });
  const { occlusion } = outputs.relief!;
  if (!occlusion) return [];
  const darkest = percentiles(occlusion, [5])[0];
  const isBlank = darkest > BLANK;
  const settings = proposedSettings(scene.recipe, 'relief', {
    occlusionMm,
    ...(isBlank ? { occlusionStrength: STRONGER } : {}),
  });
  if (settings.length === 0) return [];
  return [
    {
      id: 'occlusion',
      station: 'relief',
      title: `Occlusion within ${occlusionMm} mm`,
      reason: [
        isFaced
          ? `Faces are about ${Math.round(Math.sqrt(net.faceArea!) * edgeMm)} mm wide.`
          : `That is ${Math.round(100 * EDGE_SHARE)} % of the edge; no faces were found.`,
        isBlank ? `At strength 1 the darkest twentieth of the map would be ${darkest.toFixed(2)}.` : '',
      ]
        .filter(Boolean)
        .join(' '),
      settings,
    },
  ];
}

/** Height from a supplied normal map, as deep as its slopes say. */
async function depthOf(scene: SetupScene): Promise<SetupProposal[]> {
  const { given } = scene.recipe.stations.source;
  if (!(given.normal || (await scene.isMeasured())) || given.height) return [];
  const { verdicts } = await scene.evaluate('relief', { relief: { heightFrom: 'normals' } }, true);
  const implied = verdicts.relief?.figures.find(({ id }) => id === 'told')?.value;
  if (implied === undefined) return [];
  const depthMm = Math.min(500, Math.max(0.1, Math.round(10 * implied) / 10));
  const settings = proposedSettings(scene.recipe, 'relief', { heightFrom: 'normals', depthMm });
  if (settings.length === 0) return [];
  return [
    {
      id: 'depth',
      station: 'relief',
      title: `Depth ${depthMm} mm`,
      reason: `These normals imply ${depthMm} mm over an edge of ${scene.recipe.stations.square.edgeMetres} m.`,
      settings,
    },
  ];
}

/** Which parts are high, how deep it is, and how far occlusion reaches. */
export const proposeRelief: SetupStep = async (scene) => {
  const depth = await depthOf(scene);
  for (const { settings } of depth) scene.apply(settings);
  const { given } = scene.recipe.stations.source;
  const nets = await netsOf(scene);
  const isRead = given.height || given.normal || (await scene.isMeasured());
  const reading = isRead ? [] : readingOf(scene, nets);
  for (const { settings } of reading) scene.apply(settings);
  return [...depth, ...reading, ...(given.occlusion ? [] : await occlusionOf(scene, nets))];
};
