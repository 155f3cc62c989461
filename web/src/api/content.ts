import type { PictureContent } from '@zesty-tile/core';
import { answerOf, api } from './client.ts';

/** What the values of a stored picture say it is. @throws ApiError where it is not there. */
export const contentOf = async (sha256: string): Promise<PictureContent> =>
  (await answerOf(api.sources[':sha256'].content.$get({ param: { sha256 } }))).content as PictureContent;
