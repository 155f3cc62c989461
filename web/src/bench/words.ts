import { SECTION_WORDS, type StationName } from '@zesty-tile/core';

export const STATION_WORDS: Record<StationName, string> = SECTION_WORDS;
