/** How a frame is drawn while something moves. */
export interface MovingTier {
  /** By what width and height are divided. */
  dividedBy: number;
  /** Whether what is seen hides the sky (screen-occlusion.ts). */
  isOccluded: boolean;
}

/** From the finest to the quickest. */
const TIERS: readonly MovingTier[] = [
  { dividedBy: 1, isOccluded: true },
  { dividedBy: 1, isOccluded: false },
  { dividedBy: 2, isOccluded: false },
  { dividedBy: 3, isOccluded: false },
];

/** After a frame that takes longer comes a quicker tier, and a finer one again once that would take less. */
export const SLOW_MS = 60;
/** The middle one of so many frames counts: one may have been held up. */
const JUDGED = 5;
/** Fewer count where they took so long together. */
const JUDGED_MS = 600;
/** Occlusion is tried where frames without it take less than this. */
const QUICK_MS = SLOW_MS / 3;

/** Chooses the tier of the frames that are drawn while something moves, by what the last ones took. */
export class MovingTiers {
  readonly #hasCard: boolean;
  #at = 0;
  #isOcclusionSlow = false;
  #costs: number[] = [];

  constructor(hasCard: boolean) {
    this.#hasCard = hasCard;
    this.forget();
  }

  get now(): MovingTier {
    return TIERS[this.#at];
  }

  /** Begins again, as for frames of another size. Without a graphics card occlusion is known to be slow. */
  forget(): void {
    this.#at = this.#hasCard ? 0 : 1;
    this.#isOcclusionSlow = !this.#hasCard;
    this.#costs = [];
  }

  /** Takes what a frame of a tier took into account; the middle one of the last of that tier, null while they are too few. */
  took(tier: MovingTier, milliseconds: number): number | null {
    if (tier !== this.now) return null;
    this.#costs = [...this.#costs.slice(1 - JUDGED), milliseconds];
    const { length } = this.#costs;
    if (length < JUDGED && this.#costs.reduce((sum, ms) => sum + ms) < JUDGED_MS) return null;
    const middle = [...this.#costs].sort((a, b) => a - b)[length >> 1];
    const next = this.#after(tier, middle);
    if (next !== this.#at) this.#costs = [];
    this.#at = next;
    return middle;
  }

  #after({ dividedBy, isOccluded }: MovingTier, milliseconds: number): number {
    if (milliseconds > SLOW_MS) {
      this.#isOcclusionSlow ||= isOccluded;
      return Math.min(TIERS.length - 1, this.#at + 1);
    }
    if (dividedBy > 1) {
      const larger = milliseconds * (dividedBy / (dividedBy - 1)) ** 2;
      return larger < SLOW_MS ? this.#at - 1 : this.#at;
    }
    return this.#isOcclusionSlow || isOccluded || milliseconds > QUICK_MS ? this.#at : 0;
  }
}
