import { changesBetween, changeWords, type Recipe, SECTION_WORDS, valueWords } from '@zesty-tile/core';

/** What is undone and redone: the settings. Decisions follow from them. */
export interface Step {
  recipe: Recipe;
}

/** One dial that goes on moving within this time is one step; while a pointer is held it may rest for longer. */
const GESTURE_MS = 900;

let gesture = '';
let last = { gesture: '', at: 0 };
let words = '';
let isHeld = false;
/** Names of steps that no single setting would name, by the settings they led to. */
const named = new WeakMap<Recipe['stations'], string>();

/** Says what moves the dials from now on; `as` names the step where its settings do not. */
export function startGesture(of: string, as = ''): void {
  gesture = of;
  words = as;
}

/** After an undo, and at a new drag, the same dial begins a step of its own. */
export function endGesture(): void {
  last = { gesture: '', at: 0 };
}

/** Notes while a pointer is held down, anywhere on a target; returns what ends that. */
export function watchPointer(target: EventTarget): () => void {
  const noted = { pointerdown: true, pointerup: false, pointercancel: false };
  const note = ({ type }: Event) => {
    isHeld = noted[type as keyof typeof noted];
  };
  // Before handlers that let an event go no further.
  for (const type of Object.keys(noted)) target.addEventListener(type, note, true);
  return () => {
    isHeld = false;
    for (const type of Object.keys(noted)) target.removeEventListener(type, note, true);
  };
}

export const isSameSettings = (a: Recipe | null, b: Recipe | null): boolean =>
  a === b || (a?.stations === b?.stations && a?.masks === b?.masks && a?.seed === b?.seed);

/** Takes a step only where a gesture begins. */
export const oneStepAGesture =
  <T extends unknown[]>(take: (...given: T) => void) =>
  (...given: T): void => {
    const now = performance.now();
    const { recipe } = given[2] as Step;
    if (words) named.set(recipe.stations, words);
    const goesOn = gesture !== '' && gesture === last.gesture && (isHeld || now - last.at < GESTURE_MS);
    last = { gesture, at: now };
    if (!goesOn) take(...given);
  };

/** What leads from one recipe to the next, in a few words. */
export function stepWords(before: Recipe, after: Recipe): string {
  const known = named.get(after.stations);
  if (known) return known;
  const changes = changesBetween(before, after);
  if (changes.length === 0) return 'Nothing';
  const [first] = changes;
  const stations = [...new Set(changes.map((change) => SECTION_WORDS[change.section]))];
  if (changes.length === 1) {
    return `${stations[0]}, ${changeWords(first)} ${valueWords(first.setting, first.to)}`;
  }
  const labels = changes.map((change) => change.setting.label.toLowerCase());
  return stations.length === 1 && labels.length <= 4
    ? `${stations[0]}, ${labels.join(', ')}`
    : `${changes.length} settings of ${stations.join(', ')}`;
}
