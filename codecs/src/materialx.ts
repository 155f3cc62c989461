import { greenOfFile, isEncoded, type MapName, Problem, planesOf } from '@zesty-tile/core';
import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import { type Material, pictureOf } from './material.ts';

interface Input {
  name: string;
  type: string;
  value?: string;
  nodename?: string;
  nodegraph?: string;
  output?: string;
  colorspace?: string;
}
interface Element {
  tag: string;
  name: string;
  type: string;
  inputs: Input[];
}

const ATTRIBUTE = '@_';
const attributes = (of: object) =>
  Object.fromEntries(
    Object.entries(of)
      .filter(([, value]) => value !== undefined)
      .map(([key, value]) => [`${ATTRIBUTE}${key}`, value]),
  );

const elementOf = ({ tag, name, type, inputs }: Element) => ({
  [tag]: inputs.map((input) => ({ input: [], ':@': attributes(input) })),
  ':@': attributes({ name, type }),
});

const numbers = (...values: number[]) => values.map((value) => +value.toFixed(6)).join(', ');

/** What a standard surface reads of each map. */
const OUTPUTS: Partial<Record<MapName, { output: string; type: 'color3' | 'float' | 'vector3' }>> = {
  albedo: { output: 'base_color', type: 'color3' },
  metallic: { output: 'metalness', type: 'float' },
  roughness: { output: 'specular_roughness', type: 'float' },
  dielectric: { output: 'specular_color', type: 'color3' },
  normal: { output: 'normal', type: 'vector3' },
  opacity: { output: 'opacity', type: 'color3' },
  emission: { output: 'emission_color', type: 'color3' },
  height: { output: 'height', type: 'float' },
};

/** Index of refraction of an F0 (Fresnel at normal incidence against air). */
const refraction = (f0: number) => (1 + Math.sqrt(f0)) / (1 - Math.sqrt(f0));

/** Images and what is taken of them, each map as an output of one graph. */
function graphOf(material: Material): { nodes: Element[]; outputs: Map<MapName, string> } {
  const nodes: Element[] = [];
  const outputs = new Map<MapName, string>();
  const images = new Map<string, string>();
  const node = (tag: string, name: string, type: string, inputs: Input[]) => {
    nodes.push({ tag, name, type, inputs });
    return name;
  };
  const imageOf = (found: NonNullable<ReturnType<typeof pictureOf>>): { name: string; type: string } => {
    const { file } = found.picture;
    const count = file.channels.length;
    const isColour = file.kind === 'colour';
    const type = count === 1 ? 'float' : `${isColour ? 'color' : 'vector'}${count}`;
    let name = images.get(found.name);
    if (!name) {
      name = node('image', `image_${images.size + 1}`, type, [
        {
          name: 'file',
          type: 'filename',
          value: found.name,
          ...(isColour ? { colorspace: isEncoded(file) ? 'srgb_texture' : 'lin_rec709' } : {}),
        },
      ]);
      images.set(found.name, name);
    }
    return { name, type };
  };
  for (const [map, { type }] of Object.entries(OUTPUTS) as [
    MapName,
    NonNullable<(typeof OUTPUTS)[MapName]>,
  ][]) {
    const found = pictureOf(material.pictures, map);
    if (!found) continue;
    // A normal whose green points down is another than what the document's node reads.
    if (map === 'normal' && greenOfFile(found.picture.file, material) < 0) continue;
    const image = imageOf(found);
    let from = image.name;
    let has = image.type;
    if (planesOf(map) === 1 && has !== 'float') {
      from = node('extract', `${map}_part`, 'float', [
        { name: 'in', type: has, nodename: from },
        { name: 'index', type: 'integer', value: String(found.channel) },
      ]);
      has = 'float';
    }
    const whole = map === 'normal' ? 'vector3' : planesOf(map) === 3 ? 'color3' : 'float';
    if (has !== whole) {
      from = node('convert', `${map}_part`, whole, [{ name: 'in', type: has, nodename: from }]);
      has = whole;
    }
    if (map === 'normal')
      from = node('normalmap', 'normal_turned', 'vector3', [{ name: 'in', type: 'vector3', nodename: from }]);
    else if (map === 'dielectric') {
      const top = Math.max(...material.dielectric);
      from = node('multiply', 'dielectric_tint', 'color3', [
        { name: 'in1', type: 'color3', nodename: from },
        { name: 'in2', type: 'color3', value: numbers(...material.dielectric.map((value) => value / top)) },
      ]);
    } else if (has !== type)
      from = node('convert', `${map}_colour`, type, [{ name: 'in', type: has, nodename: from }]);
    outputs.set(map, from);
  }
  return { nodes, outputs };
}

/**
 * A MaterialX 1.38 document: the pictures beside it by their names, with their colour spaces, and a standard surface that
 * reads them; the height as displacement in metres.
 */
export function encodeMaterialX(material: Material): Uint8Array {
  const { nodes, outputs } = graphOf(material);
  const from = (map: MapName): Input => {
    const { output, type } = OUTPUTS[map]!;
    return { name: output, type, nodegraph: 'maps', output };
  };
  const graph = {
    nodegraph: [
      ...nodes.map(elementOf),
      ...[...outputs].map(([map, nodename]) => {
        const { output, type } = OUTPUTS[map]!;
        return { output: [], ':@': attributes({ name: output, type, nodename }) };
      }),
    ],
    ':@': attributes({ name: 'maps' }),
  };
  const top = Math.max(...material.dielectric);
  const surface: Input[] = [{ name: 'base', type: 'float', value: '1' }];
  for (const map of outputs.keys()) if (map !== 'height') surface.push(from(map));
  surface.push({ name: 'specular_IOR', type: 'float', value: numbers(refraction(top)) });
  if (!outputs.has('dielectric'))
    surface.push({
      name: 'specular_color',
      type: 'color3',
      value: numbers(...material.dielectric.map((value) => value / top)),
    });
  if (outputs.has('emission')) surface.push({ name: 'emission', type: 'float', value: '1' });
  const elements: Element[] = [
    { tag: 'standard_surface', name: 'surface', type: 'surfaceshader', inputs: surface },
  ];
  const shaders: Input[] = [{ name: 'surfaceshader', type: 'surfaceshader', nodename: 'surface' }];
  if (outputs.has('height')) {
    elements.push({
      tag: 'displacement',
      name: 'relief',
      type: 'displacementshader',
      inputs: [
        { ...from('height'), name: 'displacement' },
        { name: 'scale', type: 'float', value: numbers(material.depthMetres) },
      ],
    });
    shaders.push({ name: 'displacementshader', type: 'displacementshader', nodename: 'relief' });
  }
  elements.push({ tag: 'surfacematerial', name: 'tile', type: 'material', inputs: shaders });
  const tree = [
    { '?xml': [], ':@': attributes({ version: '1.0', encoding: 'UTF-8' }) },
    {
      materialx: [graph, ...elements.map(elementOf)],
      ':@': attributes({ version: '1.38', colorspace: 'lin_rec709' }),
    },
  ];
  const builder = new XMLBuilder({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: ATTRIBUTE,
    format: true,
    suppressEmptyNode: true,
  });
  return new TextEncoder().encode(`${builder.build(tree).trim()}\n`);
}

/** Reads a document back: sound XML that names every picture. @throws Problem `read_back` where it is not. */
export function checkMaterialX(name: string, bytes: Uint8Array, pictures: readonly string[]): void {
  const text = new TextDecoder().decode(bytes);
  const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: ATTRIBUTE });
  const named = new Set<string>();
  const walk = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    const of = value as Record<string, unknown>;
    if (of[`${ATTRIBUTE}type`] === 'filename') named.add(String(of[`${ATTRIBUTE}value`]));
    Object.values(of).forEach(walk);
  };
  const isSound = XMLValidator.validate(text) === true;
  if (isSound) walk(parser.parse(text));
  if (isSound && named.size > 0 && [...named].every((one) => pictures.includes(one))) return;
  throw new Problem(
    'read_back',
    `The file “${name}” failed verification after writing; the crate was not finished.`,
    'Crate it again with another profile, and report this one.',
  );
}
