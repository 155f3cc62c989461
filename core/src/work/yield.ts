let last = performance.now();

/** When waiting messages were last handled on this thread, by `performance.now`. */
export const lastYield = (): number => last;

/** Records that waiting messages were handled just now: after something was awaited. */
export function markYield(): void {
  last = performance.now();
}

/** Resolves when messages that wait have been handled. */
export const yieldNow = (): Promise<void> =>
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
  }).then(markYield);
