import { type ComponentType, lazy, type ReactNode, Suspense } from 'react';

/** What is seen first is drawn by then. */
const CALM_MS = 1000;

/**
 * A component whose code is asked for once the page is calm, or when it is shown before that: it is at hand then, even where
 * the server has gone away since.
 */
export function later<P extends object>(
  load: () => Promise<ComponentType<P>>,
  meanwhile: ReactNode = null,
): ComponentType<P> {
  const Loaded = lazy(async () => ({ default: await load() })) as unknown as ComponentType<P>;
  // What fails now is asked for again when it is to be shown, and told there.
  setTimeout(() => void load().catch(() => {}), CALM_MS);
  return (props: P) => (
    <Suspense fallback={meanwhile}>
      <Loaded {...props} />
    </Suspense>
  );
}
