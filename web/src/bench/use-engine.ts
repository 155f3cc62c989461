import { keyOf, type Recipe, resultKey } from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { useEffect } from 'react';
import { type Engine, startEngine } from '../engine/engine.ts';
import { useSettings } from '../settings/settings.ts';
import { type Requests, requests } from './requests.ts';
import { recipeChanged } from './save.ts';
import { useBench, viewInForce } from './state.ts';

let running: Engine | null = null;
let askNow = () => {};

/** The engine of the open Bench, while there is one. */
export const engineNow = (): Engine | null => running;

/** Asks for the present recipe once more, after what stood in the way is gone. */
export const askAgain = (): void => askNow();

const requestsOfBench = (): Requests =>
  requests(
    (number) => {
      const { recipe, source } = useBench.getState();
      void running?.show({ recipe, source, view: viewInForce(useBench.getState()) }, number);
    },
    (update) => useBench.getState().take(update),
  );

/** Keeps an engine running beside the Bench: every change of the recipe is shown, every change of view too. */
export function useEngine(): void {
  useEffect(() => {
    let end = () => {};
    let asking = requestsOfBench();
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
      asking = requestsOfBench();
      void running.listen(Comlink.proxy(asking.hear));
      void running.keepWithin(useSettings.getState().cacheMb * 1e6);
      askNow = asking.ask;
      asking.ask();
    };
    start();
    const essence = (of: (recipe: Recipe) => string) => {
      const { recipe, source } = useBench.getState();
      return `${source.sha256} ${of(recipe)}`;
    };
    const settings = () => essence(({ seed, masks, stations }) => keyOf([seed, masks, stations]));
    let known = settings();
    let asked = essence(resultKey);
    let view = viewInForce(useBench.getState());
    const unwatch = useBench.subscribe((state, before) => {
      if (state.recipe !== before.recipe || state.source !== before.source) {
        const now = settings();
        if (now !== known) {
          known = now;
          recipeChanged();
          const effect = essence(resultKey);
          if (effect !== asked) asking.ask();
          asked = effect;
        }
      }
      const wanted = viewInForce(state);
      if (wanted !== view) {
        view = wanted;
        void running?.look(wanted).then((shown) => {
          const now = useBench.getState();
          if (!shown) asking.ask();
          // What a request brought of this view meanwhile is newer.
          else if (shown.view === viewInForce(now) && shown.view !== now.shown?.view)
            useBench.setState({ shown });
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
