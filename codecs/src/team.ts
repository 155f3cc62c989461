import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { type Answer, Crew, type Helper, READY, type Team } from '@zesty-tile/core';
import { COLLECT } from './collect.ts';

function helper(): Helper & { end(): Promise<unknown> } {
  const thread = new Worker(new URL('./team-entry.mjs', import.meta.url));
  // Nobody waits for a helper that has nothing to do.
  thread.unref();
  let onEnd = () => {};
  let asked = 0;
  thread.on('error', () => onEnd());
  thread.on('exit', () => onEnd());
  return {
    ask(task) {
      // What is asked keeps the process until it is answered.
      if (asked++ === 0) thread.ref();
      thread.postMessage(task);
    },
    collect: () => thread.postMessage(COLLECT),
    listen(onReady, onAnswer, ended) {
      thread.on('message', (answer: Answer | typeof READY) => {
        if (answer === READY) {
          onReady();
          return;
        }
        if (--asked === 0) thread.unref();
        onAnswer(answer);
      });
      onEnd = ended;
    },
    end: () => thread.terminate(),
  };
}

/** A team of this thread and one helper for each other core; `end` lets them go. */
export function threads(helpers = availableParallelism() - 1): Team & { end(): Promise<void> } {
  const made = Array.from({ length: helpers }, helper);
  const crew = new Crew(made);
  return Object.assign(crew, {
    async end() {
      await Promise.all(made.map((one) => one.end()));
    },
  });
}
