import { STATION_NAMES } from '@zesty-tile/core';
import { useHotkeys } from 'react-hotkeys-hook';
import { useNavigate } from 'react-router';
import { hasMap } from '../engine/has-map.ts';
import { isDetail, VIEW_NAMES } from '../engine/views.ts';
import { canCompare, useBefore } from './floor/before.ts';
import { useSill } from './sill/state.ts';
import { LAYS, useBench, viewInForce } from './state.ts';
import { goBack } from './use-steps.ts';

const isField = (target: EventTarget | null): target is HTMLInputElement =>
  target instanceof HTMLInputElement && !['range', 'checkbox', 'radio'].includes(target.type);

/** A figure takes digits and marks: letters are free while it has the focus. */
const isFigure = (target: EventTarget | null) => isField(target) && target.inputMode === 'decimal';

/** Keys that a figure needs: never while any field is written in. */
const OPTIONS = {
  enableOnFormTags: true,
  ignoreEventWhen: ({ target }: KeyboardEvent) => isField(target),
};
/** Letters: while a figure has the focus too, and they are not written into it. */
export const LETTERS = {
  enableOnFormTags: true,
  ignoreEventWhen: ({ target }: KeyboardEvent) => isField(target) && !isFigure(target),
  preventDefault: ({ target }: KeyboardEvent) => isFigure(target),
};
/** Undo and redo: a field in which something is being written has its own. */
const STEPS = {
  enableOnFormTags: true,
  ignoreEventWhen: ({ target }: KeyboardEvent) =>
    isField(target) && (!isFigure(target) || target.dataset.writing !== undefined),
  preventDefault: true,
};

/** Where the keys to a part of the Bench lead: its open station, or the first of its controls. */
const PARTS = {
  course: 'nav[aria-label="Course"] [aria-current]',
  dials:
    'section[aria-label="Dials"] :is(button, input, [role="combobox"]):not([disabled], [type="hidden"], [aria-hidden="true"])',
};
const focusOn = (part: keyof typeof PARTS) => document.querySelector<HTMLElement>(PARTS[part])?.focus();

/** The Bench by keyboard. */
export function useShortcuts(crateIt: () => void): void {
  const navigate = useNavigate();
  const go = (index: number) => {
    const name = STATION_NAMES[index];
    if (name) navigate(`/tiles/${useBench.getState().tileId}/${name}`);
  };
  const here = () => STATION_NAMES.indexOf(useBench.getState().station);
  useHotkeys('period', () => go(here() + 1), OPTIONS);
  useHotkeys('comma', () => go(here() - 1), OPTIONS);
  useHotkeys('1,2,3,4,5,6,7,8,9', (event) => go(Number(event.key) - 1), OPTIONS);
  useHotkeys('0', () => go(9), OPTIONS);
  useHotkeys(
    't',
    () => {
      const { lay, set } = useBench.getState();
      set({ lay: LAYS[((LAYS as readonly number[]).indexOf(lay) + 1) % LAYS.length] });
    },
    LETTERS,
  );
  useHotkeys('h', () => useBench.getState().set({ halfShift: !useBench.getState().halfShift }), LETTERS);
  useHotkeys(
    'm',
    () => {
      const state = useBench.getState();
      const views = VIEW_NAMES.filter((view) => !isDetail(view) && hasMap(state.maps, view));
      state.set({ chosenView: views[(views.indexOf(viewInForce(state)) + 1) % views.length] });
    },
    LETTERS,
  );
  useHotkeys('b', () => canCompare() && useBefore.setState({ held: true }), LETTERS);
  useHotkeys('b', () => useBefore.setState({ held: false }), { ...LETTERS, keyup: true, keydown: false });
  useHotkeys('l', () => useSill.setState({ grown: !useSill.getState().grown }), LETTERS);
  useHotkeys('o', () => useSill.setState({ turning: !useSill.getState().turning }), LETTERS);
  useHotkeys('mod+z', () => goBack(1), STEPS);
  useHotkeys('mod+shift+z', () => goBack(-1), STEPS);
  useHotkeys('mod+enter', () => crateIt(), { enableOnFormTags: true, preventDefault: true });
  useHotkeys('d', () => focusOn('dials'), LETTERS);
  useHotkeys('c', () => focusOn('course'), LETTERS);
}
