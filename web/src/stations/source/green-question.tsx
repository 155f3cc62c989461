import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import type { GreenFound } from '@zesty-tile/core';
import { contentOf } from '../../api/content.ts';
import { LitChoice } from '../lit-choice.tsx';
import { LIT_EDGE, litBothWays } from './lit-normal.ts';

/** What a stored picture says of itself as a normal map. */
export const useGreen = (sha256: string | undefined) =>
  useQuery({
    queryKey: ['content', sha256],
    queryFn: () => contentOf(sha256 ?? ''),
    select: ({ green }) => green,
    enabled: sha256 !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
  });

const WORDS = { up: 'Green up (+Y)', down: 'Green down (−Y)' } as const;
const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

/** What was found, in one sentence. */
export function greenWords(found: GreenFound): string {
  if (!found.isNormal)
    return 'Not a normal map: its colours are not unit vectors. Remove it, or choose its type.';
  const measured = `${percent(found.up)} of its slopes cannot come from a surface with green up, ${percent(found.down)} with green down`;
  return found.points
    ? `Its green points ${found.points}: ${measured}.`
    : `Green direction is ambiguous (${measured}). Choose the picture in which bumps stand out.`;
}

interface GreenQuestionProps {
  sha256: string;
  value: 'up' | 'down' | null;
  onChange(value: 'up' | 'down'): void;
}

/** Where the green of a given normal map points: what its slopes say, and both readings lit from the upper left. */
export function GreenQuestion({ sha256, value, onChange }: GreenQuestionProps) {
  const { data: found, error } = useGreen(sha256);
  const { data: lit } = useQuery({
    queryKey: ['lit normal', sha256],
    queryFn: () => litBothWays(sha256),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <Box role="group" aria-label="Where green points" sx={{ display: 'grid', gap: 0.75 }}>
      <Typography color="text.secondary" aria-live="polite">
        {error ? error.message : found ? greenWords(found) : 'Checking the normal map …'}
      </Typography>
      {found?.isNormal && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, maxWidth: 2 * LIT_EDGE + 20 }}>
          {(['up', 'down'] as const).map((way) => (
            <LitChoice
              key={way}
              words={WORDS[way]}
              edge={LIT_EDGE}
              picture={lit?.[way]}
              drawn={`green ${way}`}
              chosen={value === way}
              onChoose={() => onChange(way)}
            />
          ))}
        </Box>
      )}
    </Box>
  );
}
