import { isApplied, type ProposedSetting, type SetupProposal, withProposed } from '@zesty-tile/core';
import { enqueueSnackbar } from 'notistack';
import { create } from 'zustand';
import { answerOf, api } from '../api/client.ts';
import { wordsOf } from '../api/words-of.ts';
import { useBench } from '../bench/state.ts';
import { setUpPhoto } from './set-up-photo.ts';

interface SetupState {
  tileId: string;
  /** What was proposed and is still to be looked through; null where nothing is. */
  proposals: SetupProposal[] | null;
  /** How far a setup under way is, 0…1. */
  done: number | null;
}

export const useSetup = create<SetupState>(() => ({ tileId: '', proposals: null, done: null }));

/** Takes the proposals of a tile that is opened. */
export const openSetup = (tileId: string, proposals: SetupProposal[] | null): void =>
  useSetup.setState({ tileId, proposals, done: null });

/** Keeps what is still to be looked through; null closes the bar. */
export async function keepProposals(proposals: SetupProposal[] | null): Promise<void> {
  const { tileId } = useSetup.getState();
  useSetup.setState({ proposals });
  try {
    await answerOf(api.tiles[':id'].$patch({ param: { id: tileId }, json: { proposals } } as never));
  } catch (error) {
    // What is set is saved with the recipe; only the list would come back as it was.
    enqueueSnackbar(wordsOf(error), { variant: 'error' });
  }
}

const change = (proposal: SetupProposal) =>
  keepProposals(
    (useSetup.getState().proposals ?? []).map((one) => (one.id === proposal.id ? proposal : one)),
  );

/** Takes a proposal back, or applies it again, as one step. */
export function switchProposal({ title, settings }: SetupProposal): void {
  const { recipe, replaceRecipe } = useBench.getState();
  const applied = isApplied(recipe, settings);
  replaceRecipe(
    withProposed(recipe, settings, applied ? 'before' : 'after'),
    `${applied ? 'Setup undone' : 'Setup'}: ${title}`,
  );
}

/** Confirms a guess as it now is, or takes another answer in its place. */
export async function choose(
  proposal: SetupProposal,
  title?: string,
  settings?: ProposedSetting[],
): Promise<void> {
  const { recipe, replaceRecipe } = useBench.getState();
  if (title && settings && !isApplied(recipe, settings)) {
    replaceRecipe(withProposed(recipe, settings), `Setup: ${title}`);
  }
  const now = useBench.getState().recipe;
  const answer = proposal.alternatives?.find((one) => isApplied(now, one.settings));
  const taken = answer && { title: answer.title, settings: answer.settings };
  await change({ ...proposal, ...taken, isGuess: false });
}

/** Measures the photo of the open tile and applies what follows, each proposal as a step of its own. */
export async function setUpAgain(): Promise<void> {
  const { recipe, source } = useBench.getState();
  const { tileId } = useSetup.getState();
  const isThere = () => useSetup.getState().tileId === tileId;
  useSetup.setState({ done: 0 });
  try {
    const onProgress = (done: number) => isThere() && useSetup.setState({ done });
    const setup = await setUpPhoto({ recipe, source }, onProgress);
    if (!setup || !isThere()) return;
    for (const { title, settings } of setup.proposals) {
      const bench = useBench.getState();
      if (!isApplied(bench.recipe, settings)) {
        bench.replaceRecipe(withProposed(bench.recipe, settings), `Setup: ${title}`);
      }
    }
    await keepProposals(setup.proposals);
  } finally {
    if (isThere()) useSetup.setState({ done: null });
  }
}
