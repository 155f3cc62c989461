import { useQuery } from '@tanstack/react-query';
import type { Profile } from '@zesty-tile/core';
import { answerOf, api } from '../../api/client.ts';

/** The profiles that are kept for a project. */
export const useProfiles = (projectId: string) =>
  useQuery({
    queryKey: ['profiles', projectId],
    queryFn: async () => {
      const { profiles } = await answerOf(api.profiles.$get({ query: { project: projectId } } as never));
      return profiles as { id: string; profile: Profile }[];
    },
    enabled: projectId !== '',
  });

/** Keeps a profile for a project: in the place of one of the same name, or as a new one. */
export async function keepProfile(
  projectId: string,
  profile: Profile,
  known: readonly { id: string; profile: Profile }[],
): Promise<void> {
  const same = known.find((one) => one.profile.name === profile.name);
  const kept = same
    ? api.profiles[':id'].$put({ param: { id: same.id }, json: { profile } } as never)
    : api.profiles.$post({ json: { projectId, profile } } as never);
  await answerOf<unknown>(kept);
}
