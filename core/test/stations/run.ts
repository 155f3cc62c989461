import {
  defaultsOf,
  type Frame,
  type Mask,
  type Raster,
  type SettingsOf,
  type Shape,
  STATIONS,
  type StationName,
  sidesOf,
  TORUS,
  type Verdict,
} from '@zesty-tile/core';
import { PLAIN_CONTEXT } from '../../src/team/context.ts';

export const frameOf = (size: number, edgeMetres = 1, edges = TORUS, shape: Shape = '1:1'): Frame => ({
  size,
  ...sidesOf(shape, size),
  shape,
  wantedSize: size,
  edgeMetres,
  edges,
  seed: 1,
  masks: [],
  photoShortEdge: size,
  turnDegrees: 0,
  green: 1,
  reading: {
    from: 'tone',
    isDarkHigh: false,
    grey: 'luminance',
    greyColour: '#808080',
    weights: [0.3, 0.6, 1, 1.4, 1.6, 1.2],
    lightDegrees: null,
  },
});

// biome-ignore lint/suspicious/noExplicitAny: stations of every kind go through here
type Any = any;

/** Runs one station by itself, deciding on its own input unless a decision is given. */
export async function runStation(
  name: StationName,
  input: Any,
  changes: object,
  frame: Frame,
  given?: { decided: unknown },
): Promise<{ output: Any; decided: Any }> {
  const station = STATIONS[name] as Any;
  const settings = { ...defaultsOf(station.settings as SettingsOf), ...changes };
  const decided = given ? given.decided : await station.decide(input, settings, frame, PLAIN_CONTEXT);
  return { output: await station.run(input, settings, decided, frame, PLAIN_CONTEXT), decided };
}

/** What a station says of its output. */
export async function verdictOf(
  name: StationName,
  input: Any,
  changes: object,
  frame: Frame,
): Promise<{ output: Any; verdict: Verdict }> {
  const station = STATIONS[name] as Any;
  const { output, decided } = await runStation(name, input, changes, frame);
  const settings = { ...defaultsOf(station.settings as SettingsOf), ...changes };
  return {
    output,
    verdict: await station.verdict(output, input, settings, decided, frame, PLAIN_CONTEXT),
  };
}

/** What Style hands on for a picture that is already a tile and is left as it is. */
export const unpainted = (picture: Raster, alpha: Float32Array | null = null) => ({
  picture,
  alpha,
  given: {},
  turnDegrees: 0,
  green: 1,
  before: async () => picture,
  photo: picture,
  relief: null,
  painted: null,
  simplified: null,
  fineLeft: 0,
  lightPainted: 0,
});

/** Runs every station after Join on a tile; decisions of an earlier run may be replayed. */
export async function runAfterJoin(
  picture: Raster,
  changes: Partial<Record<StationName, object>>,
  frame: Frame,
  decisions?: Partial<Record<StationName, unknown>>,
) {
  const outputs: Any = { style: unpainted(picture) };
  const made: Partial<Record<StationName, unknown>> = {};
  for (const name of ['gauge', 'relief', 'finish', 'coats'] as const) {
    const reads = Object.fromEntries(STATIONS[name].reads.map(({ name: read }) => [read, outputs[read]]));
    const input = name === 'relief' ? { ...reads } : reads;
    const given = decisions ? { decided: decisions[name] } : undefined;
    const { output, decided } = await runStation(name, input, changes[name] ?? {}, frame, given);
    outputs[name] = output;
    made[name] = decided;
  }
  return { outputs, decisions: made };
}

/** What Square hands on for a picture that is the crop itself, without margins. */
export const squared = (picture: Raster) => ({
  picture,
  alpha: null,
  given: {},
  margins: { left: 0, right: 0, top: 0, bottom: 0 },
  cropPixels: picture.width,
  outside: 0,
});

/** A mask of these parts, dry unless said. */
export const maskOf = (id: string, parts: Mask['parts'], wetness = 0): Mask => ({
  id,
  name: id,
  parts,
  wetness,
});
