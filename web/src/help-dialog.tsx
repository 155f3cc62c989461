import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { WORDS } from './glossary.ts';
import { FIGURES, GREY } from './theme.ts';

const GROUPS: [string, [string, string][]][] = [
  [
    'Along the Course',
    [
      [', .', 'the station before, the next one'],
      ['1 … 9, 0', 'straight to a station'],
      ['C', 'into the Course'],
      ['D', 'into the Dials'],
      ['Ctrl or ⌘ + Enter', 'crate it'],
    ],
  ],
  [
    'Floor and Sill',
    [
      ['T', 'repeat 1, 2, 3 or 5 times'],
      ['H', 'half shift'],
      ['M', 'next map'],
      ['B, held', 'see before'],
      ['Space, held', 'pan, even over handles'],
      ['L', 'expand or collapse the Sill'],
      ['O', 'rotate the sun on or off'],
      ['arrow keys, + −', 'turn the Sill in focus, nearer and farther'],
    ],
  ],
  [
    'Dials',
    [
      ['arrow keys', 'step the dial in focus'],
      ['Shift + arrow', 'step by ten'],
      ['Delete, double-click', 'back to its default'],
      ['Escape', 'out of a field, then out of a dialog'],
    ],
  ],
  [
    'Brush at Coats',
    [
      ['P, E, F', 'paint, erase, fill'],
      ['S, G', 'smaller, larger'],
      ['X', 'next mirror'],
      ['K', 'pick a colour'],
      ['Q', 'put the brush away'],
      ['Shift', 'straight line from the last stroke'],
    ],
  ],
  [
    'Everywhere on the Bench',
    [
      ['Ctrl or ⌘ + Z', 'undo'],
      ['Shift + Ctrl or ⌘ + Z', 'redo'],
      ['?', 'this help'],
    ],
  ],
];

/** All keys, and our own words. */
export function HelpDialog({ open, onClose }: { open: boolean; onClose(): void }) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="help-title" maxWidth="md">
      <DialogTitle id="help-title">Help</DialogTitle>
      <DialogContent
        tabIndex={0}
        sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 5, rowGap: 2.5, minWidth: 720 }}
      >
        {GROUPS.map(([title, keys]) => (
          <section key={title}>
            <h2 style={{ font: 'inherit', fontWeight: 700, margin: '0 0 6px' }}>{title}</h2>
            <dl style={{ margin: 0, display: 'grid', gridTemplateColumns: 'auto 1fr', gap: '5px 14px' }}>
              {keys.map(([key, does]) => (
                <div key={key} style={{ display: 'contents' }}>
                  <dt style={{ font: `12px ${FIGURES}`, whiteSpace: 'nowrap' }}>{key}</dt>
                  <dd style={{ margin: 0, color: GREY.soft }}>{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
        <section style={{ gridColumn: '1 / -1' }}>
          <h2 style={{ font: 'inherit', fontWeight: 700, margin: '0 0 6px' }}>Our own words</h2>
          <dl style={{ margin: 0, columns: 2, columnGap: 40 }}>
            {WORDS.map(([word, means]) => (
              <div key={word} style={{ display: 'flex', gap: 14, breakInside: 'avoid', padding: '2px 0' }}>
                <dt style={{ flex: '0 0 74px', fontWeight: 600 }}>{word}</dt>
                <dd style={{ margin: 0, color: GREY.soft }}>{means}</dd>
              </div>
            ))}
          </dl>
        </section>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
