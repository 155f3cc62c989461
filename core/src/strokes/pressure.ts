/** What a pen without weight still draws, as a share of the radius. */
const LIGHTEST = 0.2;

/** Share of a brush's radius that a pen draws whose weight is 0..1. */
export const radiusShare = (pressure: number): number => LIGHTEST + (1 - LIGHTEST) * pressure;

/** The weight 0..1 at which a pen draws a share of the radius; 0 where that is less than it ever draws. */
export const pressureOf = (share: number): number => Math.max(0, (share - LIGHTEST) / (1 - LIGHTEST));
