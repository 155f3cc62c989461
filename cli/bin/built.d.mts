/** Whether the command line is made, and of the sources as they stand. */
export function isBuilt(built?: string, sources?: string[]): boolean;
