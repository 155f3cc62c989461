import { GREY } from '../../../theme.ts';
import { useDragging } from './drop.ts';
import { PART_WORDS } from './parts.ts';

/** Says which part gets the tile that is dragged over the terrace. */
export function DropWords() {
  const { isOver, part } = useDragging();
  if (!isOver) return null;
  return (
    <div
      role="status"
      style={{
        position: 'absolute',
        top: 8,
        left: 12,
        padding: '3px 8px',
        borderRadius: 4,
        background: GREY.sheet,
        pointerEvents: 'none',
      }}
    >
      {part ? `Drop it: ${PART_WORDS[part].toLowerCase()}` : 'No part is here'}
    </div>
  );
}
