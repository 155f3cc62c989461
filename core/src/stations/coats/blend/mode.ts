import type { ColourRule, SeparableRule } from '../../../kernels/blend-planes/reference.ts';

/** A blend mode that treats each channel alone. */
export interface Separable extends SeparableRule {
  title: string;
}

/** A blend mode of whole colours. */
export interface OfColours extends ColourRule {
  title: string;
}

/** How what a coat puts into a channel is combined with what is below it. */
export type BlendMode = Separable | OfColours;

export const separable = (mode: Omit<Separable, 'kind'>): Separable => ({ kind: 'separable', ...mode });
export const ofColours = (mode: Omit<OfColours, 'kind'>): OfColours => ({ kind: 'colours', ...mode });
