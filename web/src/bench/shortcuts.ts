import { STATION_NAMES } from '@zesty-tile/core';
import { useHotkeys } from 'react-hotkeys-hook';
import { useNavigate } from 'react-router';
import { hasMap } from '../engine/has-map.ts';
import { isDetail, VIEW_NAMES } from '../engine/views.ts';
import { canCompare, useBefore } from './floor/before.ts';
import { useSill } from './sill/state.ts';
import { LAYS, useBench, viewInForce } from './state.ts';
import { goBack } from './use-steps.ts';

/** Keys work from a slider too, but never while a text is written. */
const OPTIONS = {
  enableOnFormTags: true,
  ignoreEventWhen: ({ target }: KeyboardEvent) =>
    target instanceof HTMLInputElement && !['range', 'checkbox'].includes(target.type),
};

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
  useHotkeys(
    't',
    () => {
      const { lay, set } = useBench.getState();
      set({ lay: LAYS[((LAYS as readonly number[]).indexOf(lay) + 1) % LAYS.length] });
    },
    OPTIONS,
  );
  useHotkeys('h', () => useBench.getState().set({ halfShift: !useBench.getState().halfShift }), OPTIONS);
  useHotkeys(
    'm',
    () => {
      const state = useBench.getState();
      const views = VIEW_NAMES.filter((view) => !isDetail(view) && hasMap(state.maps, view));
      state.set({ chosenView: views[(views.indexOf(viewInForce(state)) + 1) % views.length] });
    },
    OPTIONS,
  );
  useHotkeys('b', () => canCompare() && useBefore.setState({ held: true }), OPTIONS);
  useHotkeys('b', () => useBefore.setState({ held: false }), { ...OPTIONS, keyup: true, keydown: false });
  useHotkeys('l', () => useSill.setState({ grown: !useSill.getState().grown }), OPTIONS);
  useHotkeys('o', () => useSill.setState({ turning: !useSill.getState().turning }), OPTIONS);
  useHotkeys('mod+z', () => goBack(1), { ...OPTIONS, preventDefault: true });
  useHotkeys('mod+shift+z', () => goBack(-1), { ...OPTIONS, preventDefault: true });
  useHotkeys('mod+enter', () => crateIt(), { ...OPTIONS, preventDefault: true });
}
