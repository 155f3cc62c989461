import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { COAT_PARTS, type CoatPart, newPart, PART_KINDS, type PartName } from '@zesty-tile/core';
import { pressable } from '../../bench/pressed.ts';
import { GREY } from '../../theme.ts';
import { PartCard } from './part-card.tsx';
import { changeParts, type Owner, useCoats } from './use-coats.ts';

interface AddRowProps {
  words: string;
  kinds: readonly [name: string, title: string][];
  onAdd(name: string): void;
}

/** One more part or output, by its kind. */
export const AddRow = ({ words, kinds, onAdd }: AddRowProps) => (
  <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}>
    <span style={{ color: GREY.soft }}>{words}</span>
    {kinds.map(([name, title]) => (
      <Button key={name} sx={pressable(false)} onClick={() => onAdd(name)}>
        {title}
      </Button>
    ))}
  </Box>
);

export const titlesOf = (kinds: Record<string, { title: string }>): [string, string][] =>
  Object.entries(kinds).map(([name, { title }]) => [name, title]);

export const Heading = ({ children }: { children: string }) => (
  <h3 style={{ font: 'inherit', fontWeight: 700, margin: '6px 0 0' }}>{children}</h3>
);

/** Where a coat or the coats of a group are. */
export function MaskParts({ owner, parts }: { owner: Owner; parts: readonly CoatPart[] }) {
  return (
    <>
      <Heading>Where</Heading>
      {parts.length === 0 && <span style={{ color: GREY.soft }}>Everywhere on the tile.</span>}
      {parts.map((part, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: parts have no identity but their place
        <PartCard key={at} owner={owner} at={at} part={part} />
      ))}
      {parts.length < COAT_PARTS.most && (
        <AddRow
          words={parts.length === 0 ? 'Only' : 'Also'}
          kinds={titlesOf(PART_KINDS).filter(([name]) => name !== 'whole')}
          onAdd={(by) => {
            // What is painted adds to what is selected already, and the brush is in hand at once.
            const isPainted = by === 'strokes';
            const how = isPainted && parts.length > 0 ? { how: 'or' } : {};
            changeParts(owner, (now) => [...now, newPart(by as PartName, how)]);
            if (isPainted) useCoats.setState({ brush: { part: parts.length, erase: false }, alone: null });
          }}
        />
      )}
    </>
  );
}
