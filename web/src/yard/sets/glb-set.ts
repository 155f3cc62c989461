import type { Texture } from '@gltf-transform/core';
import type { NamedSet, RoleRead } from '@zesty-tile/core';
import { baseName } from '../../api/upload.ts';

export const isGlb = (file: File): boolean => /\.glb$/i.test(file.name);

type Slot = Pick<RoleRead, 'role' | 'packed'>;

/** A picture inside a document as a file of its own, once for all slots that use it. */
function fileOf(texture: Texture, known: Map<Texture, File>): File | null {
  const image = texture.getImage();
  if (!image) return null;
  const file =
    known.get(texture) ??
    new File([image as Uint8Array<ArrayBuffer>], texture.getName() || `${known.size + 1}.png`, {
      type: texture.getMimeType(),
    });
  known.set(texture, file);
  return file;
}

/**
 * The set of pictures in the first material of a glTF binary file, each read by the slot it stands in: occlusion is red,
 * roughness green, metallic blue, the green of a normal points up. Null where it holds no colour, or is no such file.
 */
export async function setOfGlb(file: File): Promise<NamedSet<File> | null> {
  const [{ WebIO }, { KHRONOS_EXTENSIONS }] = await Promise.all([
    import('@gltf-transform/core'),
    import('@gltf-transform/extensions'),
  ]);
  const stem = baseName(file.name);
  try {
    const document = await new WebIO()
      .registerExtensions(KHRONOS_EXTENSIONS)
      .readBinary(new Uint8Array(await file.arrayBuffer()));
    const [material] = document.getRoot().listMaterials();
    const rough = material.getMetallicRoughnessTexture();
    const occlusion = material.getOcclusionTexture();
    const isOne = rough !== null && rough === occlusion;
    const slots: [Texture | null, Slot][] = [
      [material.getBaseColorTexture(), { role: 'colour', packed: null }],
      [material.getNormalTexture(), { role: 'normal', packed: null }],
      [rough, { role: null, packed: [isOne ? 'occlusion' : 'none', 'roughness', 'metallic'] }],
      [isOne ? null : occlusion, { role: null, packed: ['occlusion', 'none', 'none'] }],
      [material.getEmissiveTexture(), { role: 'emission', packed: null }],
    ];
    const known = new Map<Texture, File>();
    const files = slots.flatMap(([texture, slot]) => {
      const picture = texture && fileOf(texture, known);
      if (!picture) return [];
      const read: RoleRead = { ...slot, isSure: true, stem, green: slot.role === 'normal' ? 'up' : null };
      return [{ file: picture, read }];
    });
    return files[0]?.read.role === 'colour' ? { stem, files } : null;
  } catch {
    return null;
  }
}
