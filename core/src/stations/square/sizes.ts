/** The longer edge that a finished tile may have, in pixels. Apart from the station, so that a page can list the sizes without loading what computes. */
export const SIZES = [256, 512, 1024, 2048, 4096, 8192] as const;
