import { stableJson } from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { useEffect, useRef } from 'react';
import { type Engine, startEngine } from '../engine/engine.ts';
import { recipeChanged } from './save.ts';
import { useBench, viewInForce } from './state.ts';

/** Keeps an engine running beside the Bench: every change of the recipe is shown, every change of view too. */
export function useEngine(): void {
  const engine = useRef<Engine | null>(null);
  useEffect(() => {
    let end = () => {};
    const ask = () => {
      const { recipe, source } = useBench.getState();
      const view = viewInForce(useBench.getState());
      void engine.current?.show({ recipe, source, view }, Comlink.proxy(useBench.getState().take));
    };
    const start = () => {
      const started = startEngine(() => {
        useBench.setState({
          busy: null,
          failure: {
            message: 'The computation broke off and was started again.',
            hint: 'Nothing that was set is lost.',
          },
        });
        end();
        start();
      });
      engine.current = started.engine;
      end = started.end;
      ask();
    };
    start();
    let asked = '';
    const essence = () => {
      const { recipe, source } = useBench.getState();
      return stableJson([source.sha256, recipe.seed, recipe.stations]);
    };
    asked = essence();
    let view = viewInForce(useBench.getState());
    const unwatch = useBench.subscribe((state, before) => {
      if (state.recipe !== before.recipe || state.source !== before.source) {
        const now = essence();
        if (now !== asked) {
          asked = now;
          recipeChanged();
          ask();
        }
      }
      const wanted = viewInForce(state);
      if (wanted !== view) {
        view = wanted;
        void engine.current?.look(wanted).then((shown) => {
          if (shown && shown.view === viewInForce(useBench.getState())) useBench.setState({ shown });
          else if (!shown) ask();
        });
      }
    });
    return () => {
      unwatch();
      end();
    };
  }, []);
}
