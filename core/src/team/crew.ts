import { KEPT_BYTES, PLANES, PlanePool } from '../memory/pool.ts';
import type { Checkpoint } from '../work/checkpoint.ts';
import { markYield, yieldNow } from '../work/yield.ts';
import type { Answer, Asked } from './helper.ts';
import type { Task } from './task.ts';
import type { Team } from './team.ts';

/** A helper as its team sees it, whatever kind of thread it is. */
export interface Helper {
  ask(task: Asked): void;
  /** Releases memory that it does not hold any more. */
  collect?(): void;
  /** Says whom to tell when the helper can be asked, where answers go, and whom to tell when it is no more. */
  listen(onReady: () => void, onAnswer: (answer: Answer) => void, onEnd: () => void): void;
}

/** Tasks that a helper is given before it has answered, so that it never waits. */
const AHEAD = 2;

/** How often to check for cancellation while waiting for helpers, in ms. */
const LOOK_MS = 5;

const later = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

interface Member {
  helper: Helper;
  /** What it was given and does not have answered: told null when it is no more. */
  waiting: Map<number, (answer: Answer | null) => void>;
}

/** A team of this thread and helpers that see its shared memory. */
export class Crew implements Team {
  #members: Member[] = [];
  #next = 0;
  readonly #planes = new PlanePool(KEPT_BYTES, true);

  constructor(helpers: readonly Helper[]) {
    for (const helper of helpers) {
      const member: Member = { helper, waiting: new Map() };
      // Nobody waits for one that is still on its way.
      helper.listen(
        () => this.#members.push(member),
        (answer) => {
          member.waiting.get(answer.id)?.(answer);
          member.waiting.delete(answer.id);
        },
        () => {
          this.#members = this.#members.filter((other) => other !== member);
          for (const tell of member.waiting.values()) tell(null);
          member.waiting.clear();
        },
      );
    }
  }

  get size(): number {
    return 1 + this.#members.length;
  }

  shared(plane: Float32Array): Float32Array {
    if (plane.buffer instanceof SharedArrayBuffer) return plane;
    const out = this.take(plane.length);
    out.set(plane);
    return out;
  }

  empty(length: number): Float32Array {
    return new Float32Array(new SharedArrayBuffer(4 * length));
  }

  take(length: number): Float32Array {
    return this.#planes.take(length);
  }

  give(...planes: Float32Array[]): void {
    PLANES.give(...planes);
    this.#planes.give(...planes);
  }

  collect(): void {
    this.#planes.empty();
    for (const { helper } of this.#members) helper.collect?.();
  }

  async each<Given extends unknown[], Made>(
    task: Task<Given, Made>,
    tasks: readonly Given[],
    take: (made: Made, k: number) => void,
    checkpoint: Checkpoint,
  ): Promise<void> {
    const left = tasks.map((_, k) => k);
    const under = new Set<Promise<void>>();
    /** What is made before its turn. */
    const early = new Map<number, Made>();
    let taken = 0;
    const put = (k: number, made: Made): void => {
      early.set(k, made);
      while (early.has(taken)) {
        take(early.get(taken)!, taken);
        early.delete(taken++);
      }
    };
    const ask = (member: Member): void => {
      const k = left.shift();
      if (k === undefined) return;
      const id = this.#next++;
      const answer = new Promise<void>((resolve, reject) => {
        member.waiting.set(id, (given) => {
          if (given === null) {
            // It is gone: this thread does it.
            left.unshift(k);
            resolve();
          } else if ('failure' in given) reject(new Error(given.failure));
          else {
            put(k, given.made as Made);
            // The last ones are not given to somebody who is still at work.
            if (left.length > 1 || member.waiting.size <= 1) ask(member);
            resolve();
          }
        });
      });
      // What fails is told when it is waited for.
      answer.catch(() => {});
      under.add(answer);
      member.helper.ask({ id, name: task.name, given: tasks[k] });
    };
    // One at least is left for this thread.
    for (let k = 0; k < AHEAD; k++) {
      for (const member of this.#members) if (left.length > 1) ask(member);
    }
    try {
      while (taken < tasks.length) {
        const k = left.shift();
        if (k === undefined) {
          let isThere = false;
          const answers = Promise.all(under).then(() => {
            isThere = true;
          });
          // What fails is told below, unless it was stopped before.
          answers.catch(() => {});
          under.clear();
          // Who is told to stop does not wait for what helpers have begun.
          while (!isThere) {
            await Promise.race([answers, later(LOOK_MS)]);
            markYield();
            await checkpoint(taken / tasks.length);
          }
        } else {
          put(k, await task.run(checkpoint, ...tasks[k]));
          // Answers come in between two tasks, and helpers get their next.
          await yieldNow();
        }
        await checkpoint(taken / tasks.length);
      }
    } finally {
      // Where it was stopped nobody begins another.
      left.length = 0;
    }
  }
}
