let last = performance.now();

/** When others were let in last on this thread, by `performance.now`. */
export const lastTurn = (): number => last;

/** Says that others were let in just now: after something was waited for. */
export function turned(): void {
  last = performance.now();
}

/** Resolves when messages that wait have been let in. */
export const nextTurn = (): Promise<void> =>
  new Promise<void>((resolve) => {
    if (typeof setImmediate === 'function') {
      setImmediate(resolve);
      return;
    }
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  }).then(turned);
