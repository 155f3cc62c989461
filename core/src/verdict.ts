/** How a station finds its own result. */
export type VerdictState = 'fine' | 'look' | 'wrong';

/** One measured figure of a verdict. `limit` is what it is compared with, where there is one. */
export interface Figure {
  id: string;
  label: string;
  value: number;
  unit: string;
  limit?: number;
  /** Digits behind the point, where the usual ones would not tell it. */
  digits?: number;
}

/** A setting that a remedy changes. */
interface RemedySetting {
  station: string;
  key: string;
  value: unknown;
  /** How far a number may be from `value` and is still taken as changed. */
  tolerance?: number;
}

/** What can be done about a verdict by the press of a button. */
export interface Remedy {
  /** One sentence: what is to be done. */
  advice: string;
  /** Words of the button. */
  words: string;
  settings: RemedySetting[];
}

/** What a station measured about its own result: always from the pixels, never from the settings. */
export interface Verdict {
  state: VerdictState;
  /** A few words for the Course. */
  brief: string;
  /** One sentence: what was found. */
  sentence: string;
  /** What to do about it; empty when nothing is needed. */
  advice: string;
  /** What the press of a button does about it, the most helpful first. */
  remedies?: Remedy[];
  figures: Figure[];
}

/** Everything that is to be done about a verdict, in words; empty when nothing is needed. */
export const adviceOf = ({ advice, remedies = [] }: Verdict): string =>
  [advice, ...remedies.map((remedy) => remedy.advice)].filter(Boolean).join(' ');

type Stations = Readonly<Record<string, Readonly<Record<string, unknown>>>>;

/** Whether the settings of all stations are already what a remedy would make of them. */
export const isRemedied = ({ settings }: Remedy, stations: Stations): boolean =>
  settings.every(({ station, key, value, tolerance }) => {
    const now = stations[station]?.[key];
    if (tolerance !== undefined) return Math.abs(Number(now) - Number(value)) <= tolerance;
    return JSON.stringify(now) === JSON.stringify(value);
  });

const ORDER: VerdictState[] = ['fine', 'look', 'wrong'];

/** The worse of two states. */
export function worse(a: VerdictState, b: VerdictState): VerdictState {
  return ORDER.indexOf(a) >= ORDER.indexOf(b) ? a : b;
}
