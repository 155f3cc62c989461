import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { CoatPart } from '@zesty-tile/core';
import { useState } from 'react';
import { wordsOf } from '../../api/words-of.ts';
import { Choices } from '../../bench/choices.tsx';
import { FileButton } from '../../bench/sill/file-button.tsx';
import { GREY } from '../../theme.ts';
import { outlinesOf, readShapeParts, type ShapePart } from './shape-parts.ts';

type OwnShapePart = CoatPart & { by: 'own-shape' };

const KINDS: { value: ShapePart['kind']; words: string }[] = [
  { value: 'mesh', words: 'Meshes' },
  { value: 'material', words: 'Materials' },
  { value: 'island', words: 'Islands' },
];

const LONGEST = 200;

/** Chooses parts of a shape of one's own: the file is read here, and what is chosen of it is kept as outlines. */
export function ShapeField({ part, onPart }: { part: OwnShapePart; onPart(part: OwnShapePart): void }) {
  const [read, setRead] = useState<{ file: string; parts: ShapePart[] } | null>(null);
  const [kind, setKind] = useState<ShapePart['kind']>('mesh');
  const [chosen, setChosen] = useState<readonly ShapePart[]>([]);
  const [problem, setProblem] = useState('');
  const choose = (parts: readonly ShapePart[]) => {
    setChosen(parts);
    try {
      const from = `${read?.file}: ${parts.map(({ name }) => name).join(', ')}`.slice(0, LONGEST);
      onPart({ ...part, loops: outlinesOf(parts), from: parts.length > 0 ? from : '' });
      setProblem('');
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 0.75 }}>
        <span style={{ color: GREY.soft, flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
          {part.from || 'Nothing chosen yet'}
        </span>
        <FileButton
          words="glTF or OBJ …"
          label="Shape of the mask"
          accept=".glb,.gltf,.obj"
          take={async (file) => {
            const parts = await readShapeParts(file);
            setRead({ file: file.name, parts });
            setChosen([]);
          }}
        />
      </Box>
      {read && (
        <>
          <Choices
            label="Parts of the shape by"
            value={kind}
            options={KINDS}
            onChange={(value) => setKind(value as ShapePart['kind'])}
          />
          <Box sx={{ display: 'grid', maxHeight: 168, overflowY: 'auto', pl: 1 }}>
            {read.parts
              .filter((one) => one.kind === kind)
              .map((one) => (
                <FormControlLabel
                  key={one.name}
                  label={one.name}
                  control={
                    <Checkbox
                      size="small"
                      checked={chosen.includes(one)}
                      onChange={(_event, on) =>
                        choose(on ? [...chosen, one] : chosen.filter((other) => other !== one))
                      }
                    />
                  }
                />
              ))}
          </Box>
        </>
      )}
      {problem && <div role="alert">{problem}</div>}
    </Box>
  );
}
