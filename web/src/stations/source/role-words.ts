import { ROLES, type Role } from '@zesty-tile/core';

/** Roles of pictures in words. */
export const ROLE_WORDS: Record<Role, string> = {
  colour: 'Colour',
  normal: 'Normal',
  height: 'Height',
  occlusion: 'Occlusion',
  cavity: 'Cavity',
  roughness: 'Roughness',
  gloss: 'Gloss',
  metallic: 'Metallic',
  specular: 'Specular (F0 colour)',
  opacity: 'Opacity',
  emission: 'Emission (glow)',
};

export const GIVEN_ROLES = ROLES.filter((role) => role !== 'colour');
