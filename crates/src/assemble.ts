import type { Material, MaterialPicture } from '@zesty-tile/codecs';
import {
  checkGltf,
  checkMaterialX,
  encodeFile,
  encodeGltf,
  encodeMaterialX,
  sha256Of,
} from '@zesty-tile/codecs';
import {
  type CrateNaming,
  type CratePlan,
  contentsOf,
  dielectricOf,
  type Engine,
  type Evaluation,
  type EvaluationRequest,
  filledText,
  isEncoded,
  type Made,
  mean,
  meanOfChannel,
  missingMaps,
  Problem,
  planCrate,
  profileOf,
  type SourceRef,
  type TextFields,
} from '@zesty-tile/core';
import { type Manifest, type ManifestPicture, manifestOf } from './manifest.ts';
import { readBack } from './read-back.ts';

/** One file of a crate, encoded. */
export interface EncodedFile {
  name: string;
  bytes: Uint8Array;
  sha256: string;
}

/** How far the files of a crate are. */
export interface FileProgress {
  /** The one at hand. */
  name: string;
  /** How much of it is done, 0…1: packed, encoded, read back, stored. */
  share: number;
  /** Its place, from 0, and how many there are in all. */
  index: number;
  count: number;
}

/** Above this the next file's samples are not made while one is encoded. */
const AHEAD_PIXELS = 4096 * 4096;

function textFields(made: Made, plan: CratePlan, naming: CrateNaming): TextFields {
  const { frame, recipe } = made;
  const surface = made.surface!;
  const { f0, depthMm } = surface;
  const round = (value: number) => +value.toFixed(6);
  return {
    ...naming,
    profile: profileOf(recipe.stations.crate).name,
    size: frame.size,
    width: frame.width,
    height: frame.height,
    edgeMetres: frame.edgeMetres,
    depthMm,
    depthShare: round(depthMm / 1000 / frame.edgeMetres),
    normalY: frame.green,
    roughness: round(meanOfChannel(surface.roughness)),
    metallic: round(meanOfChannel(surface.metallic)),
    f0: round(
      Array.isArray(f0)
        ? f0.reduce((sum, value) => sum + value / 3, 0)
        : f0.planes.reduce((sum, plane) => sum + mean(plane) / 3, 0),
    ),
    files: plan.pictures.map(({ file, name, width, height }) => {
      const [red = '', green = '', blue = '', alpha = ''] = contentsOf(file);
      return {
        name,
        map: file.ending,
        size: Math.max(width, height),
        width,
        height,
        format: file.format,
        bits: file.bits,
        colour: file.kind === 'colour',
        data: file.kind === 'data',
        red,
        green,
        blue,
        alpha,
      };
    }),
    file: Object.fromEntries(
      plan.pictures.filter(({ rung }) => rung === 0).map(({ file, name }) => [file.ending, name]),
    ),
  };
}

function materialOf(made: Made, name: string, pictures: MaterialPicture[]): Material {
  const { frame } = made;
  const surface = made.surface!;
  const metres = (side: number) => (frame.edgeMetres * side) / frame.size;
  return {
    name,
    pictures,
    widthMetres: metres(frame.width),
    heightMetres: metres(frame.height),
    depthMetres: surface.depthMm / 1000,
    dielectric: dielectricOf(surface).brightest,
    green: frame.green,
  };
}

/**
 * Encodes every file of a crate, reads each back, and hands it to `store` as soon as it is ready, the
 * manifest last, when all is measured, so that a large set need not lie in memory at once.
 * @throws Problem `read_back` where a file holds something else than was meant, `name_clash` as `planCrate`.
 */
async function encodeCrate(
  made: Made,
  measured: () => Promise<Evaluation>,
  naming: CrateNaming,
  source: SourceRef & { file: string },
  store: (file: EncodedFile) => Promise<void>,
  tell: (progress: FileProgress) => void,
): Promise<Manifest> {
  const { frame, recipe, outputs } = made;
  const files = outputs.crate?.files ?? [];
  const plan = planCrate(recipe.stations.crate, missingMaps(made.surface!), frame, naming);
  if (plan.pictures.length !== files.length)
    throw new Problem('bad_crate', 'The crate holds other files than planned.', 'Crate it again.');
  const count = files.length + plan.documents.length + (plan.text ? 1 : 0) + 1;
  let index = 0;
  const at = (name: string, share: number) => tell({ name, share, index, count });
  const put = async (name: string, bytes: Uint8Array) => {
    const sha256 = sha256Of(bytes);
    await store({ name, bytes, sha256 });
    at(name, 1);
    index++;
    return sha256;
  };
  const prepare = (k: number) => {
    const samples = files[k].samples();
    const encoding = encodeFile(files[k], samples, !plan.isEmbedded && isEncoded(files[k]));
    // It may fail while an earlier one is awaited; it is heard when its turn comes.
    encoding.catch(() => {});
    return { samples, encoding };
  };
  const isAhead = (k: number) => k < files.length && files[k].width * files[k].height <= AHEAD_PIXELS;

  const written: ManifestPicture[] = [];
  const kept: MaterialPicture[] = [];
  let ahead: ReturnType<typeof prepare> | null = null;
  for (const [k, file] of files.entries()) {
    const picture = plan.pictures[k];
    at(picture.name, 0);
    const { samples, encoding }: ReturnType<typeof prepare> = ahead ?? prepare(k);
    // While one is encoded in a thread of the codec, the next one's samples are made.
    ahead = isAhead(k) && isAhead(k + 1) ? prepare(k + 1) : null;
    at(picture.name, 0.3);
    const bytes = await encoding;
    at(picture.name, 0.7);
    const { most, mean: off } = await readBack(file, bytes, samples);
    at(picture.name, 0.9);
    if (plan.documents.length > 0) kept.push({ picture, name: picture.name, bytes });
    let sha256: string;
    if (plan.isEmbedded) {
      sha256 = sha256Of(bytes);
      at(picture.name, 1);
      index++;
    } else sha256 = await put(picture.name, bytes);
    const inside = plan.documents.find(({ rung }) => plan.isEmbedded && rung === picture.rung)?.name ?? null;
    written.push({ file, name: picture.name, sha256, inside, readBack: { most, mean: off } });
  }
  const texts: { name: string; sha256: string }[] = [];
  for (const { kind, rung, name } of plan.documents) {
    at(name, 0);
    const pictures = kept.filter(({ picture }) => picture.rung === rung);
    const material = materialOf(made, naming.tile, pictures);
    let bytes: Uint8Array;
    if (kind === 'gltf') {
      bytes = await encodeGltf(material);
      await checkGltf(name, bytes);
    } else {
      bytes = encodeMaterialX(material);
      checkMaterialX(
        name,
        bytes,
        pictures.map((one) => one.name),
      );
    }
    texts.push({ name, sha256: await put(name, bytes) });
  }
  const { text } = recipe.stations.crate;
  if (plan.text && text) {
    const filled = filledText(text.text, textFields(made, plan, naming));
    texts.push({ name: plan.text, sha256: await put(plan.text, new TextEncoder().encode(filled)) });
  }
  const manifest = manifestOf(naming, source, await measured(), written, texts);
  await put(plan.manifest, new TextEncoder().encode(`${JSON.stringify(manifest, null, 2)}\n`));
  return manifest;
}

/** A crate as it was exported, and the evaluation it is of. */
export interface MadeCrate {
  manifest: Manifest;
  evaluation: Evaluation;
}

/**
 * Makes a tile's maps and the files of its crate: while files are encoded, what is left to be measured is. Nothing is stored
 * any more once it has thrown.
 * @throws Stopped, and Problem as the engine does; Problem `read_back` where a file holds something else than was meant,
 * `name_clash` as `planCrate`.
 */
export async function makeCrate(
  engine: Engine,
  request: Omit<EvaluationRequest, 'tileOnly' | 'onMade'>,
  naming: CrateNaming,
  source: SourceRef & { file: string },
  store: (file: EncodedFile) => Promise<void>,
  tell: (progress: FileProgress) => void = () => {},
): Promise<MadeCrate> {
  let encoding: Promise<Manifest> | null = null;
  const evaluating: Promise<Evaluation> = engine.evaluate({
    ...request,
    tileOnly: true,
    onMade: (made) => {
      encoding = encodeCrate(made, () => evaluating, naming, source, store, tell);
      // It may fail while figures are measured; it is heard when they are.
      encoding.catch(() => {});
    },
  });
  const evaluation = await evaluating.catch(async (error) => {
    await Promise.allSettled([encoding]);
    throw error;
  });
  return { manifest: await encoding!, evaluation };
}
