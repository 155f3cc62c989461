import { GREY } from '../../../theme.ts';
import { SkyDisc, spotOf } from '../../dials/sky-disc.tsx';
import { useSill } from '../state.ts';
import type { Sun } from './rig.ts';

/** The light that the disc moves, and how it is moved. */
export function useChosenLight(): { name: string; light: Sun; put(next: Sun): void } {
  const { sun, lamps, chosenLight } = useSill();
  const lamp = chosenLight === 'sun' ? undefined : lamps[chosenLight];
  if (!lamp || chosenLight === 'sun')
    return { name: 'Sun', light: sun, put: (next) => useSill.setState({ sun: next }) };
  return {
    name: `Light ${chosenLight + 1}`,
    light: lamp,
    put: (next) =>
      useSill.setState({ lamps: lamps.map((one, k) => (k === chosenLight ? { ...one, ...next } : one)) }),
  };
}

/** The lights of the lit view on a disc; the chosen one is moved. */
export function SunDisc() {
  const { sun, lamps, chosenLight } = useSill();
  const { name, light, put } = useChosenLight();
  return (
    <SkyDisc label={`${name}: left and right turn it, up and down raise it`} light={light} onMove={put}>
      {lamps.map((lamp, k) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: lamps have no name but their place
          key={k}
          {...spotOf(lamp)}
          r={chosenLight === k ? 5 : 3.5}
          fill={lamp.colour}
          stroke={GREY.ink}
        />
      ))}
      <circle {...spotOf(sun)} r={chosenLight === 'sun' ? 5 : 3.5} fill={GREY.ink} stroke="#fff" />
    </SkyDisc>
  );
}
