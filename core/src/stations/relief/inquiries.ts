import { runSteps } from '../../work/steps.ts';
import type { Inquiry } from '../inquiry.ts';
import type { ReliefInput } from './decision.ts';
import { bestNet, type FoundNet, findNetsOf } from './joints/net.ts';
import { relief } from './station.ts';

/** Whether dark or light lines of the tile close faces, and how clearly. */
export const NET: Inquiry<null, never, FoundNet> = {
  station: relief.name,
  async answer({ input, frame, context }) {
    const work = await context();
    const { style } = (await input()) as ReliefInput;
    return work.part('net', frame.edges, async () =>
      bestNet(await runSteps(findNetsOf(style.picture, frame.edges), work.checkpoint)),
    );
  },
};
