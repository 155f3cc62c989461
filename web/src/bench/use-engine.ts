import { effective, type StationSettings, stableJson } from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { useEffect } from 'react';
import { type Engine, startEngine } from '../engine/engine.ts';
import type { Update } from '../engine/protocol.ts';
import { useSettings } from '../settings/settings.ts';
import { afterPaint } from './after-paint.ts';
import { recipeChanged } from './save.ts';
import { useBench, viewInForce } from './state.ts';

/** So long a request may go on before a newer one ends it; a quick one shows its picture first. */
const PATIENCE_MS = 220;

/** What takes no longer is not said to be computing. */
const SHORT_MS = 150;

/** So long after the server was away it is asked again. */
const AGAIN_MS = 3000;

let running: Engine | null = null;
let askNow = () => {};

/** The engine of the open Bench, while there is one. */
export const engineNow = (): Engine | null => running;

/** Asks for the present recipe once more, after what stood in the way is gone. */
export const askAgain = (): void => askNow();

/** One request at a time: the dial's last place is asked for as soon as the picture before is shown. */
function requests() {
  let startedAt = 0;
  let askedAt = 0;
  let isOver = false;
  let waiting = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let count = 0;
  // The Floor comes first: the Sill, the Course and the dials are redrawn when its picture is painted.
  const paint = afterPaint();
  const start = () => {
    clearTimeout(timer);
    waiting = false;
    askedAt = performance.now();
    startedAt = askedAt;
    const mine = ++count;
    const { recipe, source } = useBench.getState();
    const view = viewInForce(useBench.getState());
    const answered = () => {
      if (mine !== count) return;
      startedAt = 0;
      if (waiting) start();
    };
    const take = (update: Update): Promise<void> | undefined => {
      // What was on its way when the Bench was left is of another tile than the one in hand.
      if (isOver) return;
      if (update.kind === 'view') {
        useBench.getState().take(update);
        const painted = paint.painting();
        answered();
        return painted;
      }
      if (update.kind === 'busy' && performance.now() - askedAt < SHORT_MS) return;
      paint.later(() => useBench.getState().take(update));
      if (update.kind === 'failed' || update.kind === 'idle') answered();
      if (update.kind === 'failed' && update.code === 'away' && mine === count) {
        timer = setTimeout(start, AGAIN_MS);
      }
    };
    void running?.show({ recipe, source, view }, Comlink.proxy(take));
  };
  return {
    ask() {
      const left = startedAt + PATIENCE_MS - performance.now();
      if (startedAt === 0 || left <= 0) start();
      else if (!waiting) {
        waiting = true;
        timer = setTimeout(start, left);
      }
    },
    end() {
      isOver = true;
      clearTimeout(timer);
      paint.end();
    },
  };
}

/** Keeps an engine running beside the Bench: every change of the recipe is shown, every change of view too. */
export function useEngine(): void {
  useEffect(() => {
    let end = () => {};
    let asking = requests();
    const start = () => {
      const started = startEngine(() => {
        useBench.setState({
          busy: null,
          failure: {
            code: 'broke_off',
            message: 'The computation broke off and was started again.',
            hint: 'Nothing that was set is lost.',
          },
        });
        end();
        start();
      });
      running = started.engine;
      end = started.end;
      asking.end();
      asking = requests();
      void running.keepWithin(useSettings.getState().cacheMb * 1e6);
      askNow = asking.ask;
      asking.ask();
    };
    start();
    const essence = (of: (stations: StationSettings) => StationSettings) => {
      const { recipe, source } = useBench.getState();
      return stableJson([source.sha256, recipe.seed, of(recipe.stations)]);
    };
    const settings = () => essence((stations) => stations);
    let known = settings();
    let asked = essence(effective);
    let view = viewInForce(useBench.getState());
    const unwatch = useBench.subscribe((state, before) => {
      if (state.recipe !== before.recipe || state.source !== before.source) {
        const now = settings();
        if (now !== known) {
          known = now;
          recipeChanged();
          const effect = essence(effective);
          if (effect !== asked) asking.ask();
          asked = effect;
        }
      }
      const wanted = viewInForce(state);
      if (wanted !== view) {
        view = wanted;
        void running?.look(wanted).then((shown) => {
          if (shown && shown.view === viewInForce(useBench.getState())) useBench.setState({ shown });
          else if (!shown) asking.ask();
        });
      }
    });
    const unset = useSettings.subscribe(({ cacheMb }) => void running?.keepWithin(cacheMb * 1e6));
    return () => {
      unwatch();
      unset();
      asking.end();
      end();
      running = null;
      askNow = () => {};
    };
  }, []);
}
