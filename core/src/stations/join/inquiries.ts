import type { Inquiry } from '../inquiry.ts';
import type { JoinInput } from './input.ts';
import type { JoinOutput } from './output.ts';
import { type Proposal, type Proposed, propose } from './propose.ts';
import { type GraftOffer, graftOffers, type RepairSpot } from './repair/offers.ts';
import type { JoinSettings } from './settings.ts';
import { join } from './station.ts';

/** Every way of joining, tried and measured; each is told as it is made. */
export const JOIN_PROPOSALS: Inquiry<null, Proposal, Proposed> = {
  station: join.name,
  async answer({ input, frame, settings, context }, _asked, tell) {
    return propose((await input()) as JoinInput, frame, settings as JoinSettings, await context(), tell);
  },
};

/** Grafts to cover a place of the joined tile with. */
export const GRAFT_OFFERS: Inquiry<RepairSpot, never, GraftOffer[]> = {
  station: join.name,
  async answer({ input, output, frame, context }, spot) {
    const { even, square } = (await input()) as JoinInput;
    const { picture } = (await output()) as JoinOutput;
    const photo = { picture: even.picture, margins: square.margins };
    return graftOffers(picture, photo, spot, frame.edges, (await context()).checkpoint);
  },
};
