/**
 * Lengths that the longer edge of a finished tile may have, in pixels. In a file of its own, so that a page can list them
 * without loading the stations.
 */
export const SIZES = [256, 512, 1024, 2048, 4096, 8192] as const;
