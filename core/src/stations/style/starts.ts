import type { StyleSettings } from './settings.ts';

/** A way of painting to begin with: nothing but values of the dials. */
export interface StyleStart {
  name: string;
  dials: Pick<
    StyleSettings,
    'amount' | 'shape' | 'edges' | 'colours' | 'brush' | 'marks' | 'variety' | 'light' | 'ink' | 'depth'
  >;
}

/** Ways of painting to begin with, the quietest first. */
export const STYLE_STARTS: readonly StyleStart[] = [
  {
    name: 'Clean shapes',
    dials: {
      ...{ amount: 0.9, shape: 0.62, edges: 0.8, colours: 0.6, brush: 0.6, marks: 0.12 },
      ...{ variety: 0.25, light: 0.45, ink: 0, depth: 0.15 },
    },
  },
  {
    name: 'Dry brush',
    dials: {
      ...{ amount: 1, shape: 0.5, edges: 0.5, colours: 0.5, brush: 0.5, marks: 0.75 },
      ...{ variety: 0.5, light: 0.5, ink: 0, depth: 0.5 },
    },
  },
  {
    name: 'Thick paint',
    dials: {
      ...{ amount: 1, shape: 0.55, edges: 0.3, colours: 0.6, brush: 0.78, marks: 0.9 },
      ...{ variety: 0.75, light: 0.4, ink: 0, depth: 1 },
    },
  },
  {
    name: 'Carved',
    dials: {
      ...{ amount: 1, shape: 0.6, edges: 0.7, colours: 0.45, brush: 0.45, marks: 0.3 },
      ...{ variety: 0.3, light: 0.95, ink: 0, depth: 0.3 },
    },
  },
  {
    name: 'Ink and wash',
    dials: {
      ...{ amount: 1, shape: 0.6, edges: 0.7, colours: 0.85, brush: 0.7, marks: 0.35 },
      ...{ variety: 0.35, light: 0.3, ink: 0.85, depth: 0.2 },
    },
  },
];
