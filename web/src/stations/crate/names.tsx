import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import {
  type CrateText,
  NAME_FIELDS,
  patternProblems,
  suffixProblem,
  TEXT_ENDING,
  TEXT_FIELDS,
  templateNestingProblem,
  templateProblems,
} from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { Section } from '../../bench/dials/section.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { EditDialog } from '../../edit-dialog.tsx';
import { FIGURES, GREY } from '../../theme.ts';

const mono = { font: `12.5px ${FIGURES}` };

const FIRST: CrateText = {
  ending: 'material.txt',
  text: 'material "{{tile}}"\nsize {{size}}\ndepth {{depthShare}}\n{{#files}}\n{{map}} = {{name}}\n{{/files}}\n',
};

/** Where a custom text is written, and what it speaks of. */
function TextDialog({ onClose }: { onClose(): void }) {
  const kept = useBench((s) => s.recipe.stations.crate.text);
  const [{ ending, text }, setText] = useState(kept ?? FIRST);
  const nesting = templateNestingProblem(text);
  const problems = [...templateProblems(text), ...(nesting ? [nesting] : [])];
  const taken = suffixProblem(ending);
  const isNamed = TEXT_ENDING.test(ending) && !taken;
  const take = (value: CrateText | null) => {
    useBench.getState().setDials('crate', { text: value }, '');
    onClose();
  };
  return (
    <EditDialog onClose={onClose} maxWidth="md" fullWidth aria-labelledby="crate-text">
      <DialogTitle id="crate-text">Text file</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
        <span style={{ color: GREY.soft }}>
          Exported with each crate, with its fields filled in. {'{{#files}} … {{/files}}'} is repeated for
          each picture; there {'{{name}}'}, {'{{map}}'}, {'{{size}}'}, {'{{red}}'} and so on are that
          picture’s.
        </span>
        <TextField
          label="Suffix of its file"
          value={ending}
          error={!isNamed}
          helperText={taken ?? ''}
          onChange={(event) => setText({ ending: event.target.value, text })}
          sx={{ width: 260, mt: 1 }}
        />
        <TextField
          label="Text"
          multiline
          minRows={9}
          maxRows={16}
          value={text}
          error={problems.length > 0}
          helperText={problems[0] ?? ' '}
          onChange={(event) => setText({ ending, text: event.target.value })}
          slotProps={{ input: { sx: mono } }}
        />
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
          {[...TEXT_FIELDS.filter((field) => field !== 'files'), 'file.albedo', 'file.normal'].map(
            (field) => (
              <Button
                key={field}
                sx={pressable(false)}
                onClick={() => setText({ ending, text: `${text}{{${field}}}` })}
              >
                {field}
              </Button>
            ),
          )}
        </Box>
      </DialogContent>
      <DialogActions>
        {kept && <Button onClick={() => take(null)}>Remove</Button>}
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          disabled={problems.length > 0 || !isNamed}
          onClick={() => take({ ending, text })}
        >
          Use it
        </Button>
      </DialogActions>
    </EditDialog>
  );
}

/** How files are called, and a custom text beside them. */
export function Names() {
  const { names, text } = useBench((s) => s.recipe.stations.crate);
  const [typed, setTyped] = useState(names);
  const [isOpen, setOpen] = useState(false);
  useEffect(() => setTyped(names), [names]);
  const [problem] = patternProblems(typed.trim());
  const change = (next: string) => {
    setTyped(next);
    if (patternProblems(next.trim()).length === 0) useBench.getState().setDial('crate', 'names', next.trim());
  };
  return (
    <Section station="crate" id="names" title="Names" open={false}>
      <Box sx={{ display: 'grid', gap: 0.75 }}>
        <TextField
          label="Names of the files"
          value={typed}
          error={problem !== undefined}
          helperText={problem ?? ''}
          onChange={(event) => change(event.target.value)}
          slotProps={{ input: { sx: mono } }}
          sx={{ mt: 0.5 }}
        />
        <Box sx={{ display: 'flex', gap: 0.5 }}>
          {NAME_FIELDS.map((field) => (
            <Button key={field} sx={pressable(false)} onClick={() => change(`${typed}_{${field}}`)}>
              {`{${field}}`}
            </Button>
          ))}
        </Box>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <span style={{ flex: 1 }}>{text ? `Text: .${text.ending}` : 'No text file'}</span>
          <Button onClick={() => setOpen(true)}>{text ? 'Change' : 'Write one …'}</Button>
        </Box>
      </Box>
      {isOpen && <TextDialog onClose={() => setOpen(false)} />}
    </Section>
  );
}
