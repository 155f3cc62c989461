/** A colour while it is blended: three values, by a rule 0..1. */
export type Triple = [number, number, number];

/** A blend mode that treats each channel alone. */
export interface Separable {
  kind: 'separable';
  title: string;
  /**
   * The blended values of what is below and what lies above it, both 0..1, from one place to another: written to the start of
   * `out`. With a step of 0 one value lies above. What leaves 0..1 is brought to its end by the caller. A loop in every mode:
   * a call for every value costs many times as much.
   */
  row(
    below: Float32Array,
    above: Float32Array,
    step: 0 | 1,
    out: Float32Array,
    from: number,
    to: number,
  ): void;
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
