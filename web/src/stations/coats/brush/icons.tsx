import type { ReactNode } from 'react';

/** An icon of the brush's tools: drawn in lines of one weight on 24 × 24. */
const Icon = ({ children }: { children: ReactNode }) => (
  <svg
    aria-hidden="true"
    width="22"
    height="22"
    viewBox="0 0 24 24"
    fill="none"
    stroke="currentColor"
    strokeWidth="1.75"
    strokeLinecap="round"
    strokeLinejoin="round"
  >
    {children}
  </svg>
);

/** A drop that runs into a line. */
export const PaintIcon = () => (
  <Icon>
    <path d="M12 3.5c3 3.6 4.2 5.6 4.2 7.4a4.2 4.2 0 0 1-8.4 0c0-1.8 1.2-3.8 4.2-7.4z" />
    <path d="M4 20c3-1.8 5.2-1.8 8 0s5 1.8 8 0" />
  </Icon>
);

/** The same drop, crossed out. */
export const EraseIcon = () => (
  <Icon>
    <path
      d="M12 3.5c3 3.6 4.2 5.6 4.2 7.4a4.2 4.2 0 0 1-8.4 0c0-1.8 1.2-3.8 4.2-7.4z"
      strokeDasharray="2 3"
    />
    <path d="M5 4.5l14 14" />
    <path d="M4 20h16" />
  </Icon>
);

/** A drop in a closed line. */
export const FillIcon = () => (
  <Icon>
    <path d="M5 5.5c4-2.4 10-2.4 14 0 2 4 2 9 0 13-4 2.4-10 2.4-14 0-2-4-2-9 0-13z" />
    <path d="M12 8c1.7 2 2.4 3.2 2.4 4.2a2.4 2.4 0 0 1-4.8 0c0-1 .7-2.2 2.4-4.2z" fill="currentColor" />
  </Icon>
);

/** A small circle in the large one that it was. */
export const SmallerIcon = () => (
  <Icon>
    <circle cx="12" cy="12" r="9" strokeDasharray="2 3.5" />
    <circle cx="12" cy="12" r="3" />
  </Icon>
);

/** A large circle about the small one that it was. */
export const LargerIcon = () => (
  <Icon>
    <circle cx="12" cy="12" r="9" />
    <circle cx="12" cy="12" r="3" strokeDasharray="2 2.7" />
  </Icon>
);

const TRIANGLES = {
  none: null,
  across: <path d="M9 7l-5 10h5zM15 7l5 10h-5z" />,
  down: <path d="M7 9l10-5v5zM7 15l10 5v-5z" />,
  both: <path d="M10 10H4l6-6zM14 10h6l-6-6zM10 14H4l6 6zM14 14h6l-6 6z" />,
};

/** A triangle and its images. */
export const MirrorIcon = ({ mirror }: { mirror: keyof typeof TRIANGLES }) => (
  <Icon>{TRIANGLES[mirror] ?? <path d="M12 4v16" strokeDasharray="2 3" />}</Icon>
);

/** A ring about the place that is meant. */
export const PickIcon = () => (
  <Icon>
    <circle cx="12" cy="12" r="6" />
    <path d="M12 2.5v4M12 17.5v4M2.5 12h4M17.5 12h4" />
  </Icon>
);

/** An arrow to a wall. */
export const AwayIcon = () => (
  <Icon>
    <path d="M4 12h10M10 7l5 5-5 5" />
    <path d="M19 5v14" />
  </Icon>
);
