import type { Hear, Update } from '../engine/protocol.ts';
import { afterPaint } from './after-paint.ts';

/** So long a request may go on before a newer one ends it; a quick one shows its picture first. */
const PATIENCE_MS = 220;

/** What takes no longer is not said to be computing. */
const SHORT_MS = 150;

/** So long after the server was away it is asked again. */
const AGAIN_MS = 3000;

export interface Requests {
  /** Asks for what is wanted now, at once or as soon as the request before has its picture. */
  ask(): void;
  /** Takes what the engine says of these requests. */
  hear: Hear;
  end(): void;
}

/** One request at a time: the dial's last place is asked for as soon as the picture before is shown. */
export function requests(
  show: (number: number) => void,
  take: (update: Update) => void,
  paint = afterPaint(),
): Requests {
  let startedAt = 0;
  let askedAt = 0;
  let isOver = false;
  let waiting = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let newest = 0;
  // The Floor comes first: the Sill, the Course and the dials are redrawn when its picture is painted.
  const start = () => {
    clearTimeout(timer);
    waiting = false;
    askedAt = performance.now();
    startedAt = askedAt;
    newest++;
    show(newest);
  };
  const answered = (number: number) => {
    if (number !== newest) return;
    startedAt = 0;
    if (waiting) start();
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
    hear(update, number) {
      // What was on its way when the Bench was left is of another tile than the current one.
      if (isOver) return;
      if (update.kind === 'view') {
        take(update);
        const painted = paint.painting();
        answered(number);
        return painted;
      }
      if (update.kind === 'busy' && performance.now() - askedAt < SHORT_MS) return;
      paint.later(() => take(update));
      if (update.kind === 'failed' || update.kind === 'idle') answered(number);
      if (update.kind === 'failed' && update.code === 'away' && number === newest) {
        timer = setTimeout(start, AGAIN_MS);
      }
    },
    end() {
      isOver = true;
      clearTimeout(timer);
      paint.end();
    },
  };
}
