import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type Coat, type CoatGroup, coloursOfCoat, STATIONS } from '@zesty-tile/core';
import { useState } from 'react';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { NewCoat } from './new-coat.tsx';
import { OpenCoat } from './open-coat.tsx';
import { OpenGroup } from './open-group.tsx';
import { RecolourDialog } from './recolour-dialog.tsx';
import { SavedStacks } from './saved-stacks.tsx';
import { changeCoat, changeGroup, moveCoat, moveTo, openCoat, useCoats } from './use-coats.ts';

const MOST = STATIONS.coats.settings.stack.most;
/** How far the pointer goes before a press is a drag, CSS pixels. */
const DRAG_FROM = 6;

/** One column, no wider than the panel: long names are cut. */
const COLUMN = { display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 0.75 };

const nameStyle = { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' } as const;

/** Whether a coat or a group counts. */
const OnOff = ({ name, visible, onToggle }: { name: string; visible: boolean; onToggle(): void }) => (
  <Button
    aria-pressed={visible}
    aria-label={`${name} counts`}
    sx={{ ...pressable(visible), minWidth: 44 }}
    onClick={onToggle}
  >
    {visible ? 'On' : 'Off'}
  </Button>
);

interface RowProps {
  coat: Coat;
  place: number;
  isOpen: boolean;
}

/** One coat in the list: its place, its name, and whether it counts; it is dragged to another place. */
function CoatRow({ coat, place, isOpen }: RowProps) {
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: coat.id });
  return (
    <Box
      ref={setNodeRef}
      data-coat-row={coat.name}
      sx={{ ...COLUMN, ml: coat.group ? 1.5 : 0 }}
      style={{
        transform: CSS.Translate.toString(transform),
        transition,
        ...(isDragging ? { position: 'relative', zIndex: 2, opacity: 0.85 } : {}),
      }}
    >
      <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'stretch' }}>
        <Button
          {...listeners}
          aria-expanded={isOpen}
          data-coat={coat.name}
          onClick={() => openCoat(isOpen ? null : coat.id)}
          onKeyDown={(event) => {
            if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
            event.preventDefault();
            moveCoat(coat.id, event.key === 'ArrowUp' ? 1 : -1);
          }}
          sx={{
            ...pressable(isOpen),
            flex: 1,
            minWidth: 0,
            justifyContent: 'flex-start',
            gap: 1,
            touchAction: 'none',
            opacity: coat.visible ? 1 : 0.6,
          }}
        >
          <span style={{ font: `12px ${FIGURES}` }}>{place}</span>
          <span style={nameStyle}>{coat.name}</span>
        </Button>
        <Button
          aria-label={`Raise ${coat.name}`}
          sx={{ ...pressable(false), minWidth: 30 }}
          onClick={() => moveCoat(coat.id, 1)}
        >
          +
        </Button>
        <Button
          aria-label={`Lower ${coat.name}`}
          sx={{ ...pressable(false), minWidth: 30 }}
          onClick={() => moveCoat(coat.id, -1)}
        >
          −
        </Button>
        <OnOff
          name={coat.name}
          visible={coat.visible}
          onToggle={() => changeCoat(coat.id, (now) => ({ ...now, visible: !now.visible }))}
        />
      </Box>
      {isOpen && !isDragging && <OpenCoat coat={coat} />}
    </Box>
  );
}

/** The head of a group, above its coats. */
function GroupRow({ group, isOpen }: { group: CoatGroup; isOpen: boolean }) {
  return (
    <Box sx={COLUMN}>
      <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'stretch' }}>
        <Button
          aria-expanded={isOpen}
          data-group={group.name}
          onClick={() => openCoat(isOpen ? null : group.id)}
          sx={{
            ...pressable(isOpen),
            flex: 1,
            minWidth: 0,
            justifyContent: 'flex-start',
            fontStyle: 'italic',
            opacity: group.visible ? 1 : 0.6,
          }}
        >
          <span style={nameStyle}>{group.name}</span>
        </Button>
        <OnOff
          name={group.name}
          visible={group.visible}
          onToggle={() => changeGroup(group.id, (now) => ({ ...now, visible: !now.visible }))}
        />
      </Box>
      {isOpen && <OpenGroup group={group} />}
    </Box>
  );
}

/** All coats, the top one first, the open one's settings below its row; and coats to begin with. */
export function CoatList() {
  const { stack, groups } = useBench((s) => s.recipe.stations.coats);
  const open = useCoats((s) => s.open);
  const [isRecolouring, setRecolouring] = useState(false);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM } }));
  const shown = stack.map((_coat, k) => stack[stack.length - 1 - k]);
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const to = stack.findIndex(({ id }) => id === over?.id);
    if (to >= 0) moveTo(String(active.id), to);
  };
  return (
    <Box sx={COLUMN}>
      {stack.length === 0 && (
        <Typography color="text.secondary">
          A coat is a layer over the tile: where it is, and what it puts into each map. Begin with one of
          these; everything about it can be changed.
        </Typography>
      )}
      {stack.length < MOST && <NewCoat />}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={shown.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          {shown.map((coat, k) => {
            const group = coat.group !== shown[k - 1]?.group && groups.find(({ id }) => id === coat.group);
            return (
              <Box key={coat.id} sx={COLUMN}>
                {group && <GroupRow group={group} isOpen={open === group.id} />}
                <CoatRow coat={coat} place={stack.length - k} isOpen={open === coat.id} />
              </Box>
            );
          })}
        </SortableContext>
      </DndContext>
      {stack.length > 1 && (
        <span style={{ color: GREY.soft }}>
          The top coat comes first; drag one to another place, or press Alt and an arrow key.
        </span>
      )}
      {stack.some((coat) => coloursOfCoat(coat).length > 0) && (
        <Button sx={{ ...pressable(false), justifySelf: 'start' }} onClick={() => setRecolouring(true)}>
          Recolour …
        </Button>
      )}
      {isRecolouring && <RecolourDialog onClose={() => setRecolouring(false)} />}
      <SavedStacks />
    </Box>
  );
}
