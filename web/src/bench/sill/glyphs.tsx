import type { ReactNode } from 'react';
import type { Shape } from './shapes.ts';

const glyph = (children: ReactNode) => (
  <svg
    width="17"
    height="17"
    viewBox="0 0 18 18"
    fill="none"
    stroke="currentColor"
    strokeWidth="1.4"
    strokeLinejoin="round"
    aria-hidden="true"
  >
    {children}
  </svg>
);

/** A small drawing of each shape. */
export const SHAPE_GLYPHS: Record<Shape, ReactNode> = {
  slab: glyph(<path d="M4 3.5 12.5 2.5V15L4 14ZM12.5 2.5 14.5 3.4V14.2L12.5 15" />),
  ball: glyph(
    <>
      <circle cx="9" cy="8.6" r="5.9" />
      <path d="M5 16.2h8" />
    </>,
  ),
  block: glyph(<path d="M2.8 6 9 3.2 15.2 6v6.4L9 15.4 2.8 12.4ZM2.8 6 9 8.8 15.2 6M9 8.8v6.6" />),
  post: glyph(
    <>
      <ellipse cx="9" cy="4" rx="4.2" ry="1.7" />
      <path d="M4.8 4v10c0 .9 1.9 1.7 4.2 1.7s4.2-.8 4.2-1.7V4" />
    </>,
  ),
  nook: glyph(<path d="M9 2.4v8.4M9 10.8 2.6 14.6V5.4L9 2.4l6.4 3v9.2L9 10.8" />),
  field: glyph(<path d="M2 6.2h14M7.2 6.2 2.6 15M10.8 6.2 15.4 15M5 10.4h8" />),
  scene: glyph(<path d="M2.4 15.2V5.6L9 2.6l6.6 3v9.6M6 15.2v-4.4a3 3 0 0 1 6 0v4.4M1.6 15.2h14.8" />),
  own: glyph(<path d="M9 2.6 14.8 9 9 15.4 3.2 9Z" />),
};

export const COMPARE_GLYPH = glyph(
  <>
    <circle cx="9" cy="9" r="6.2" />
    <path d="M9 2.8v12.4" />
    <path d="M9 2.8a6.2 6.2 0 0 1 0 12.4Z" fill="currentColor" />
  </>,
);
export const STILL_GLYPH = glyph(
  <>
    <path d="M2.6 5.6V2.8h2.8M12.6 2.8h2.8v2.8M15.4 12.4v2.8h-2.8M5.4 15.2H2.6v-2.8" />
    <circle cx="9" cy="9" r="2.6" />
  </>,
);
