import { useEffect } from 'react';
import { create } from 'zustand';
import { useProjects } from './queries.ts';

/** The project that was last open in the Yard, or null before one was. */
const useLastProject = create<{ id: string | null }>(() => ({ id: null }));

/** The project whose pages other pages lead to: the one that was last open, else the first. */
export function useProjectToOpen(): string | undefined {
  const last = useLastProject((s) => s.id);
  const projects = useProjects().data?.projects;
  return (projects?.find(({ id }) => id === last) ?? projects?.[0])?.id;
}

/** Remembers the project that is open. */
export function useRemembered(id: string | undefined): void {
  useEffect(() => {
    if (id) useLastProject.setState({ id });
  }, [id]);
}
