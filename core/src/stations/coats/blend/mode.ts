/** A colour while it is blended: three values, by a rule 0..1. */
export type Triple = [number, number, number];

/** A blend mode that treats each channel alone. */
export interface Separable {
  kind: 'separable';
  title: string;
  /** The blended value of what is below and what lies above it, both 0..1; what leaves 0..1 is brought to its end. */
  of(below: number, above: number): number;
}

/** A blend mode of whole colours. */
export interface OfColours {
  kind: 'colours';
  title: string;
  /** The blended colour of what is below and what lies above it, written to `out`, which may be either. */
  into(below: Readonly<Triple>, above: Readonly<Triple>, out: Triple): void;
}

/** How what a coat puts into a channel is combined with what is below it. */
export type BlendMode = Separable | OfColours;

export const separable = (mode: Omit<Separable, 'kind'>): Separable => ({ kind: 'separable', ...mode });
export const ofColours = (mode: Omit<OfColours, 'kind'>): OfColours => ({ kind: 'colours', ...mode });
