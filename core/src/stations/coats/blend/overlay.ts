import { hardLight } from './hard-light.ts';
import { separable } from './mode.ts';

/** Hard light with both exchanged: what is below says where it is multiplied or screened (W3C Compositing and Blending Level 1, 2024). */
export const overlay = separable({
  title: 'Overlay',
  of: (below, above) => hardLight.of(above, below),
});
