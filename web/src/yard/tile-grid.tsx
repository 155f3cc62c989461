import Box from '@mui/material/Box';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type MouseEvent, type ReactNode, useLayoutEffect, useState } from 'react';
import type { YardTile } from './queries.ts';
import { TileCard, WORDS_HEIGHT } from './tile-card.tsx';

const LEAST_WIDTH = 212;
const GAP = 16;
const ROWS_AHEAD = 2;

interface TileGridProps {
  /** The element that scrolls. */
  scroller: HTMLDivElement | null;
  first: ReactNode;
  tiles: YardTile[];
  chosen: string | null;
  selected: ReadonlySet<string>;
  onSelect(id: string, event: MouseEvent): boolean;
  onChoose(id: string): void;
  onOpen(id: string): void;
}

/** The tiles in rows, of which only those in sight are drawn: hundreds scroll like a dozen. */
export function TileGrid({
  scroller,
  first,
  tiles,
  chosen,
  selected,
  onSelect,
  onChoose,
  onOpen,
}: TileGridProps) {
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    if (!scroller) return;
    const measure = () => setWidth(scroller.clientWidth - 2 * GAP);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(scroller);
    return () => observer.disconnect();
  }, [scroller]);
  const columns = Math.max(1, Math.floor((width + GAP) / (LEAST_WIDTH + GAP)));
  const cell = (width - GAP * (columns - 1)) / columns;
  const row = Math.round(cell) + WORDS_HEIGHT + GAP;
  const count = Math.ceil((tiles.length + 1) / columns);
  const rows = useVirtualizer({
    count,
    getScrollElement: () => scroller,
    estimateSize: () => row,
    overscan: ROWS_AHEAD,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another width makes other rows
  useLayoutEffect(() => rows.measure(), [row]);
  return (
    <Box sx={{ height: rows.getTotalSize(), position: 'relative' }} data-rows={count}>
      {width > 0 &&
        rows.getVirtualItems().map(({ index, start }) => (
          <Box
            key={index}
            sx={{
              position: 'absolute',
              insetInline: 0,
              display: 'grid',
              gap: `${GAP}px`,
              gridTemplateColumns: `repeat(${columns}, 1fr)`,
            }}
            style={{ transform: `translateY(${start}px)`, height: row - GAP }}
          >
            {Array.from({ length: columns }, (_, k) => {
              const at = index * columns + k;
              if (at === 0) return <div key="first">{first}</div>;
              const tile = tiles[at - 1];
              return (
                tile && (
                  <TileCard
                    key={tile.id}
                    tile={tile}
                    chosen={tile.id === chosen}
                    selected={selected.has(tile.id)}
                    onSelect={(event) => onSelect(tile.id, event)}
                    onChoose={() => onChoose(tile.id)}
                    onOpen={() => onOpen(tile.id)}
                  />
                )
              );
            })}
          </Box>
        ))}
    </Box>
  );
}
