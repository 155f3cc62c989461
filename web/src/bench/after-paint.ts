/** A page that is not looked at paints nothing; so long is waited for it. */
const UNPAINTED_MS = 150;

/** Work that is held back until the frame of a picture is painted, in its order. */
export function afterPaint() {
  let held: (() => void)[] = [];
  let frame = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const release = () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
    timer = undefined;
    const now = held;
    held = [];
    for (const one of now) one();
  };
  return {
    /** A picture was just handed to the page. Resolves when it is painted, or another took its place. */
    painting(): Promise<void> {
      const painted = new Promise<void>((resolve) => held.push(resolve));
      clearTimeout(timer);
      cancelAnimationFrame(frame);
      timer = setTimeout(release, UNPAINTED_MS);
      // A task that is asked for within a frame runs when the frame is done.
      frame = requestAnimationFrame(() => {
        clearTimeout(timer);
        timer = setTimeout(release);
      });
      return painted;
    },
    later(work: () => void) {
      if (timer === undefined) work();
      else held.push(work);
    },
    end() {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
      timer = undefined;
      held = [];
    },
  };
}
