import { type MaskStroke, strokesSchema } from '../../../masks/mask.ts';
import { choice, data, type Group, group, number } from '../../../settings/kinds.ts';
import { JOINT_PROFILES } from './carve.ts';

const visibleWhen = ({ joints }: { joints?: unknown }) => joints !== 'none';
const JOINTS = group({ id: 'joints', title: 'Joints', visibleWhen });
const FACES = group({ id: 'faces', title: 'Faces', visibleWhen });
const NET = group({ id: 'joint-net', title: 'Repair of the net', visibleWhen });

const length =
  (of: Group) =>
  (label: string, help: string, most: number, least = 0, value = 0) =>
    number({ label, help, group: of, default: value, min: least, max: most, step: 0.1, unit: 'mm' });
const ofJoints = length(JOINTS);
const ofFaces = length(FACES);

/** Joints and the faces between them. */
export const jointSettings = {
  joints: choice({
    label: 'Joints',
    help: 'dark, light: the net of dark or of light lines is carved as joints, and what it closes are faces. none: no joints are carved.',
    default: 'none',
    options: ['none', 'dark', 'light'],
    names: ['None', 'Dark lines', 'Light lines'],
  }),
  jointProfile: choice({
    label: 'Profile',
    help: 'recessed: below the faces. flush: level with them, with a groove along both borders. raised: a bead above them.',
    group: JOINTS,
    default: 'recessed',
    options: JOINT_PROFILES,
    names: ['Recessed', 'Flush', 'Raised'],
  }),
  jointDepthMm: ofJoints(
    'Joint depth',
    'From the edge of the faces to the bottom of the joints, or the top of raised ones.',
    200,
    0,
    6,
  ),
  jointWidthMm: ofJoints('Joint width', 'From face to face; 0 leaves joints as wide as they are found.', 500),
  bevelMm: ofJoints('Bevel', 'From the border of a joint to where the face has its full height.', 200, 0, 7),
  faceDomeMm: ofFaces(
    'Dome',
    'How far the middle of a face rises above its edge; below 0 it is a dish.',
    200,
    -200,
  ),
  faceTiltMm: ofFaces(
    'Tilt',
    'How far faces lean towards the side where their tone is brighter; below 0 towards the darker.',
    100,
    -100,
  ),
  faceLevelMm: ofFaces('Level', 'How far bright faces stand above dark ones; below 0 under them.', 100, -100),
  faceTone: number({
    label: 'Tone inside faces',
    help: 'How much of the depth that tone comes to is left on faces and in joints.',
    group: FACES,
    default: 0.25,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  jointStrokes: data<MaskStroke[]>({
    ofPicture: true,
    onSheets: true,
    label: 'Repaired by hand',
    help: 'Strokes that add joints to the net, or take them away. Strokes stay with their picture.',
    group: NET,
    default: [],
    schema: strokesSchema,
    example: '[{"points":[[0.2,0.3],[0.4,0.3]],"radius":0.01,"softness":0,"erase":false}]',
    words: (value) => (value.length === 1 ? '1 stroke' : `${value.length} strokes`),
  }),
};
