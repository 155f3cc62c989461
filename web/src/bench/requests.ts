import type { Update } from '../engine/protocol.ts';
import { afterPaint } from './after-paint.ts';

/** So long a request may go on before a newer one ends it; a quick one shows its picture first. */
const PATIENCE_MS = 220;

/** What takes no longer is not said to be computing. */
const SHORT_MS = 150;

/** So long after the server was away it is asked again. */
const AGAIN_MS = 3000;

/** Takes what the engine tells of a request; of a picture it says when it is painted. */
type Take = (update: Update) => Promise<void> | undefined;

export interface Requests {
  /** Asks for what is wanted now, at once or as soon as the request before has its picture. */
  ask(): void;
  end(): void;
}

/** One request at a time: the dial's last place is asked for as soon as the picture before is shown. */
export function requests(
  show: (take: Take) => void,
  take: (update: Update) => void,
  paint = afterPaint(),
): Requests {
  let startedAt = 0;
  let askedAt = 0;
  let isOver = false;
  let waiting = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let count = 0;
  /** The newest request that was answered. */
  let heard = 0;
  // The Floor comes first: the Sill, the Course and the dials are redrawn when its picture is painted.
  const start = () => {
    clearTimeout(timer);
    waiting = false;
    askedAt = performance.now();
    startedAt = askedAt;
    const mine = ++count;
    const answered = () => {
      if (mine !== count) return;
      startedAt = 0;
      if (waiting) start();
    };
    show((update) => {
      // What was on its way when the Bench was left is of another tile than the current one; and requests answer each by a
      // way of its own, so that a word of an older one may come after those of a newer one.
      if (isOver || mine < heard) return;
      heard = mine;
      if (update.kind === 'view') {
        take(update);
        const painted = paint.painting();
        answered();
        return painted;
      }
      if (update.kind === 'busy' && performance.now() - askedAt < SHORT_MS) return;
      paint.later(() => take(update));
      if (update.kind === 'failed' || update.kind === 'idle') answered();
      if (update.kind === 'failed' && update.code === 'away' && mine === count) {
        timer = setTimeout(start, AGAIN_MS);
      }
    });
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
