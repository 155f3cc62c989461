import { useQuery } from '@tanstack/react-query';
import { answerOf, api } from '../api/client.ts';

const LOOK_AGAIN_MS = 4000;
const GOING = ['waiting', 'working'];

/** The newest crates of all tiles, looked at again while one is being made. */
export const useAllCrates = () =>
  useQuery({
    queryKey: ['all crates'],
    queryFn: () => answerOf(api.crates.$get()),
    staleTime: 0,
    refetchInterval: ({ state }) =>
      state.data?.crates.some((crate) => GOING.includes(crate.state)) ? LOOK_AGAIN_MS : false,
  });

/** How many crates are being made now. */
export const useRunningCrates = (): number =>
  useAllCrates().data?.crates.filter((crate) => GOING.includes(crate.state)).length ?? 0;
