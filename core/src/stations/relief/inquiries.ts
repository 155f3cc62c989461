import { KERNELS } from '../../kernels/kernels.ts';
import { luminance } from '../../planes/luminance.ts';
import { runSteps } from '../../work/steps.ts';
import type { Inquiry } from '../inquiry.ts';
import type { ReliefInput } from './decision.ts';
import { CLEAR_NET, findNets } from './joints/net.ts';
import { relief } from './station.ts';

/** The net that closes faces best. */
export interface FoundNet {
  lines: 'dark' | 'light';
  /** How clearly it does, 0…1. */
  score: number;
  /** Whether that is clear enough to offer it. */
  isClear: boolean;
}

/** Whether dark or light lines of the tile close faces, and how clearly. */
export const NET: Inquiry<null, never, FoundNet> = {
  station: relief.name,
  async answer({ input, frame, context }) {
    const work = await context();
    const { style } = (await input()) as ReliefInput;
    return work.part('net', frame.edges, async () => {
      const grey = KERNELS.encodeSrgbPlane(luminance(style.picture));
      const { dark, light } = await runSteps(findNets(grey, frame, frame.edges), work.checkpoint);
      const lines = light.score > dark.score ? 'light' : 'dark';
      const score = Math.max(dark.score, light.score);
      return { lines, score, isClear: score >= CLEAR_NET };
    });
  },
};
