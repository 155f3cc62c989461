import { newRecipe, type Recipe } from '@zesty-tile/core';
import { expect } from 'chai';
import { workWords } from '../src/bench/floor/engine-line.tsx';
import { openTile, useBench } from '../src/bench/state.ts';
import { endGesture, stepWords, watchPointer } from '../src/bench/steps.ts';

const past = () => useBench.temporal.getState().pastStates.length;
const exposure = () => useBench.getState().recipe.stations.gauge.exposure;
const { setDial, setDials, replaceRecipe, take } = useBench.getState();

const WORK = {
  ...{ size: 512, ms: 80, hits: 3, misses: 1, bytes: 2e6, limit: 6e8, threads: 2 },
  planes: { taken: 9, reused: 5 },
  longest: { station: 'relief' as const, ms: 14 },
};

describe('steps that can be undone', () => {
  beforeEach(() => {
    endGesture();
    openTile({
      tileId: 't',
      projectId: 'p',
      source: { sha256: 's', width: 10, height: 10 },
      recipe: newRecipe(),
      base: 1,
    });
  });

  it('opening a tile is no step', () => {
    expect(past()).to.equal(0);
  });

  it('a dial that goes on moving is one step, another dial another', () => {
    for (const value of [0.1, 0.2, 0.3]) setDial('gauge', 'exposure', value);
    setDial('gauge', 'contrast', 1.2);
    expect(past()).to.equal(2);
    useBench.temporal.getState().undo();
    expect(exposure()).to.equal(0.3);
    useBench.temporal.getState().undo();
    expect(exposure()).to.equal(0);
    useBench.temporal.getState().redo(2);
    expect(useBench.getState().recipe.stations.gauge.contrast).to.equal(1.2);
  });

  it('a drag is one step however long it rests; without the pointer a rest ends the step', () => {
    const clock = performance.now;
    let now = 0;
    performance.now = () => now;
    const page = new EventTarget();
    const end = watchPointer(page);
    const moveTo = (value: number) => {
      now += 5000;
      setDial('gauge', 'exposure', value);
    };
    try {
      page.dispatchEvent(new Event('pointerdown'));
      for (const value of [0.1, 0.2, 0.3]) moveTo(value);
      expect(past()).to.equal(1);
      page.dispatchEvent(new Event('pointerup'));
      for (const value of [0.4, 0.5]) moveTo(value);
      expect(past()).to.equal(3);
      page.dispatchEvent(new Event('pointerdown'));
      end();
      moveTo(0.6);
      expect(past(), 'no longer watched').to.equal(4);
    } finally {
      performance.now = clock;
      end();
    }
  });

  it('the same dial moved after an undo is a step of its own', () => {
    setDial('gauge', 'exposure', 0.1);
    useBench.temporal.getState().undo();
    endGesture();
    setDial('gauge', 'exposure', 0.2);
    expect(past()).to.equal(1);
    useBench.temporal.getState().undo();
    expect(exposure()).to.equal(0);
  });

  it('what the engine settles is no step, nor is a dial set to what it is', () => {
    take({ kind: 'settled', size: 512, decisions: { gauge: { key: 'k', data: null } }, work: WORK });
    setDial('gauge', 'exposure', 0);
    setDials('square', { centreX: 0.5 }, 'crop move');
    expect(past()).to.equal(0);
    expect(useBench.getState().recipe.decisions.gauge?.key).to.equal('k');
  });

  it('a replaced recipe is one step under its own name, which outlives what is settled afterwards', () => {
    const before = useBench.getState().recipe;
    const gauge = { ...before.stations.gauge, exposure: 1, contrast: 1.5 };
    replaceRecipe({ ...before, stations: { ...before.stations, gauge } }, 'Version 3 restored');
    take({ kind: 'settled', size: 512, decisions: {}, work: WORK });
    expect(past()).to.equal(1);
    expect(stepWords(before, useBench.getState().recipe)).to.equal('Version 3 restored');
  });

  it('names a step by what changed', () => {
    const from = newRecipe();
    const put = (station: 'gauge' | 'square', values: object): Recipe => ({
      ...from,
      stations: { ...from.stations, [station]: { ...from.stations[station], ...values } },
    });
    expect(stepWords(from, put('gauge', { exposure: -0.38 }))).to.equal('Gauge, Exposure −0.38 stops');
    expect(stepWords(from, put('square', { centreX: 0.4, share: 0.5 }))).to.equal(
      'Square, centre across, crop edge',
    );
  });
});

describe('the line of the engine', () => {
  it('says what a pass came to, each figure with its unit', () => {
    expect(workWords(WORK)).to.equal(
      '512 px in 80 ms · 3 cached, 1 computed · 2 of 600 MB · 5 of 9 buffers reused · 2 threads · longest step 14 ms, Relief',
    );
    expect(workWords({ ...WORK, threads: 1 })).to.include('1 thread ·');
  });
});
