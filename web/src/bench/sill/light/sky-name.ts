/** Name of what is seen behind everything, in the scene. */
export const SKY = 'sky';
