import * as Comlink from 'comlink';
import { create } from 'zustand';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { OfferedJoin } from '../../engine/protocol.ts';

interface Proposals {
  open: boolean;
  offers: OfferedJoin[];
  busy: boolean;
  best: { best: number; reason: string } | null;
  failure: string | null;
}

const NOTHING: Proposals = { open: false, offers: [], busy: false, best: null, failure: null };

/** The ways of joining that were tried on the current tile. */
export const useProposals = create<Proposals>(() => NOTHING);

/** Which run of trying is the present one: what an earlier one still says is not heard. */
let run = 0;

/** Tries every way of joining; each is offered as soon as it is made. */
export async function tryWays(): Promise<void> {
  const engine = engineNow();
  if (!engine) return;
  const mine = ++run;
  const { recipe, source } = useBench.getState();
  useProposals.setState({ ...NOTHING, open: true, busy: true });
  // Offers come by a way of their own, the last ones sometimes after the answer.
  const take = (offer: OfferedJoin) => {
    if (mine === run) useProposals.setState(({ offers }) => ({ offers: [...offers, offer] }));
  };
  try {
    const best = await engine.proposeJoin({ recipe, source }, Comlink.proxy(take));
    if (mine === run) useProposals.setState({ best, busy: false });
  } catch (error) {
    if (mine !== run) return;
    useProposals.setState({
      busy: false,
      failure: error instanceof Error ? error.message : String(error),
    });
  }
}

/** Stops trying; what was made stays to be chosen from. */
export function stopTrying(): void {
  run++;
  void engineNow()?.stopProposing();
  useProposals.setState({ busy: false });
}

export function closeProposals(): void {
  run++;
  void engineNow()?.stopProposing();
  useProposals.setState(NOTHING);
}
