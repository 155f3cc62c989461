/** Views of the photo as it was taken: they neither wrap nor lie beside each other. */
const OF_PHOTO = new Set(['photo', 'residual']);

export const isOfPhoto = (view: string | undefined): boolean => view !== undefined && OF_PHOTO.has(view);
