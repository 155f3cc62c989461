import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Slider from '@mui/material/Slider';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { SIZES } from '@zesty-tile/core';
import { type ReactNode, useEffect, useId, useState } from 'react';
import { Choices } from '../bench/choices.tsx';
import { Sheet } from '../head.tsx';
import { FIGURES, GREY } from '../theme.ts';
import { LANGUAGE_WORDS, reflectanceWords } from './reflectance.ts';
import { CACHE_MB, LANGUAGES, STAGE, setSettings, useSettings } from './settings.ts';

function Row({ title, help, children }: { title: string; help: string; children: ReactNode }) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: '1fr 340px',
        gap: 3,
        alignItems: 'center',
        py: 1.5,
        borderBottom: `1px solid ${GREY.line}`,
      }}
    >
      <div>
        <Typography variant="h2" component="h3">
          {title}
        </Typography>
        <Typography color="text.secondary">{help}</Typography>
      </div>
      <div>{children}</div>
    </Box>
  );
}

const LONGEST_EDGE = 100;

function EdgeField() {
  const edge = useSettings((s) => s.edgeMetres);
  const [text, setText] = useState(String(edge));
  const read = Number(text.replace(',', '.'));
  const wrong = !(read >= 0.01 && read <= LONGEST_EDGE);
  return (
    <TextField
      value={text}
      error={wrong}
      helperText={wrong ? `From 0.01 to ${LONGEST_EDGE} m; ${edge} m stays active.` : ''}
      onChange={(event) => {
        setText(event.target.value);
        const next = Number(event.target.value.replace(',', '.'));
        if (next >= 0.01 && next <= LONGEST_EDGE) setSettings({ edgeMetres: next });
      }}
      slotProps={{
        htmlInput: { 'aria-label': 'Edge of new tiles in metres', inputMode: 'decimal' },
        input: { endAdornment: 'm', sx: { font: `13px ${FIGURES}`, bgcolor: GREY.card } },
      }}
    />
  );
}

/** What can be chosen about the program itself. */
export function SettingsPage() {
  const settings = useSettings();
  const stageId = useId();
  useEffect(() => {
    document.title = 'Settings, Zesty Tile';
  }, []);
  const select = { bgcolor: GREY.card, fontSize: 13, minWidth: 160 };
  return (
    <Sheet title="Settings">
      <Typography color="text.secondary">Saved in this browser; applies immediately.</Typography>
      <div>
        <Row title="Theme" help="Neutral greys either way, so that colours are judged as they are.">
          <Choices
            label="Theme"
            value={settings.theme}
            options={[
              { value: 'light', words: 'Light' },
              { value: 'dim', words: 'Dim' },
            ]}
            onChange={(theme) => setSettings({ theme })}
          />
        </Row>
        <Row
          title="Stage grey"
          help="The grey around the tile. A darker stage makes the tile look lighter, and the other way round."
        >
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
            <Box
              aria-hidden
              sx={{
                width: 44,
                height: 32,
                borderRadius: 1,
                bgcolor: GREY.stage,
                border: `1px solid ${GREY.line}`,
              }}
            />
            <Slider
              size="small"
              min={STAGE.least}
              max={STAGE.most}
              value={settings.stage}
              marks={[{ value: STAGE.usual }]}
              onChange={(_event, stage) => setSettings({ stage: stage as number })}
              onDoubleClick={() => setSettings({ stage: STAGE.usual })}
              aria-labelledby={stageId}
            />
            <span id={stageId} style={{ font: `12px ${FIGURES}`, whiteSpace: 'nowrap' }}>
              sRGB {settings.stage}
            </span>
          </Box>
        </Row>
        <Row title="Reflectance units" help="How reflectance is displayed.">
          <Select
            size="small"
            value={settings.language}
            inputProps={{ 'aria-label': 'Reflectance units' }}
            onChange={(event) => setSettings({ language: event.target.value })}
            sx={select}
          >
            {LANGUAGES.map((language) => (
              <MenuItem key={language} value={language}>
                {LANGUAGE_WORDS[language]}
              </MenuItem>
            ))}
          </Select>
          <Typography color="text.secondary" sx={{ mt: 0.5 }}>
            A grey card reads {reflectanceWords(0.18, settings.language)}.
          </Typography>
        </Row>
        <Row title="Memory for results" help="Caches results so that going back is instant.">
          <Select
            size="small"
            value={settings.cacheMb}
            inputProps={{ 'aria-label': 'Memory for results' }}
            onChange={(event) => setSettings({ cacheMb: event.target.value })}
            sx={select}
          >
            {CACHE_MB.map((mb) => (
              <MenuItem key={mb} value={mb}>
                {mb} MB
              </MenuItem>
            ))}
          </Select>
        </Row>
        <Row title="Engine statistics" help="For each picture: time, cache hits, memory, threads.">
          <FormControlLabel
            control={
              <Checkbox
                checked={settings.engineLine}
                onChange={(event) => setSettings({ engineLine: event.target.checked })}
              />
            }
            label="Show below the tile"
          />
        </Row>
        <Row title="Size of new tiles" help="Each tile can have another one, set in Square.">
          <Select
            size="small"
            value={settings.size}
            inputProps={{ 'aria-label': 'Size of new tiles' }}
            onChange={(event) => setSettings({ size: event.target.value })}
            sx={select}
          >
            {SIZES.map((size) => (
              <MenuItem key={size} value={size}>
                {size} px
              </MenuItem>
            ))}
          </Select>
        </Row>
        <Row title="Edge of new tiles" help="The usual length of one tile in the world.">
          <EdgeField />
        </Row>
      </div>
    </Sheet>
  );
}
