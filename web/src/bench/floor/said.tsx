import { GREY } from '../../theme.ts';

/** Words in the corner of the Floor: what is shown there, or what is to be done. */
export const Said = ({ children }: { children: string }) => (
  <span
    role="status"
    style={{
      position: 'absolute',
      top: 8,
      left: 8,
      padding: '2px 9px',
      background: GREY.ink,
      color: GREY.onInk,
      borderRadius: 4,
    }}
  >
    {children}
  </span>
);
