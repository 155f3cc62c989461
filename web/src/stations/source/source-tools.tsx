import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Typography from '@mui/material/Typography';
import { GIVEN_MAPS, type GivenMap, type GivenRefs, isSameShape, roleOf } from '@zesty-tile/core';
import { useRef, useState } from 'react';
import { contentOf } from '../../api/content.ts';
import { type StoredPicture, storePicture } from '../../api/upload.ts';
import { wordsOf } from '../../api/words-of.ts';
import { useBench } from '../../bench/state.ts';
import { setUpAgain, useSetup } from '../../setup/use-setup.ts';
import { GREY } from '../../theme.ts';
import { GreenQuestion } from './green-question.tsx';
import { givenOf, judged, memberOf } from './picture-sets.ts';
import { GIVEN_ROLES, ROLE_WORDS } from './role-words.ts';
import { AddShots } from './shot-dials.tsx';
import { WhereFromFields } from './where-from.tsx';

/** Adds a map that is given instead of derived; where its name does not tell which, it is asked. */
function AddMap() {
  const input = useRef<HTMLInputElement>(null);
  const [asked, setAsked] = useState<StoredPicture | null>(null);
  const [problem, setProblem] = useState('');
  const giveAll = (more: GivenRefs) => {
    const { given } = useBench.getState().recipe.stations.source;
    useBench.getState().setDials('source', { given: { ...given, ...more } }, '');
    setAsked(null);
  };
  const give = (map: GivenMap, picture: StoredPicture) => giveAll({ [map]: picture });
  const take = async (file: File | undefined) => {
    if (!file) return;
    setProblem('');
    try {
      const picture = await storePicture(file);
      const { source } = useBench.getState();
      if (!isSameShape(picture, source)) {
        setProblem(
          `${file.name} is ${picture.width} × ${picture.height}, the photo ${source.width} × ${source.height}: they cannot show the same view.`,
        );
        return;
      }
      const read = roleOf(file.name);
      const member = judged(memberOf({ file, read }), picture, await contentOf(picture.sha256));
      if (member.role === null || member.role === 'colour') setAsked(picture);
      else giveAll(givenOf({ members: [member] }));
    } catch (error) {
      setProblem(`${file.name}: ${wordsOf(error)}`);
    }
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.75 }}>
      <Button
        variant="outlined"
        size="small"
        onClick={() => input.current?.click()}
        sx={{ justifySelf: 'start' }}
      >
        Add a map …
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label="A map supplied with the photo"
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {asked && (
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', minWidth: 0 }}>
          <span style={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>{asked.name} is the</span>
          <Select
            size="small"
            displayEmpty
            value=""
            inputProps={{ 'aria-label': `What ${asked.name} is` }}
            onChange={(event) => give(event.target.value as GivenMap, asked)}
            sx={{ bgcolor: GREY.card }}
          >
            <MenuItem value="" disabled>
              Choose …
            </MenuItem>
            {GIVEN_ROLES.map((role) => (
              <MenuItem key={role} value={role}>
                {ROLE_WORDS[role]}
              </MenuItem>
            ))}
          </Select>
          <Button size="small" onClick={() => setAsked(null)}>
            Cancel
          </Button>
        </Box>
      )}
      {problem && (
        <Typography role="alert" color="error">
          {problem}
        </Typography>
      )}
    </Box>
  );
}

const CHANNELS = ['red', 'green', 'blue', 'alpha'];

/** The file a map lies in, and the channel of it where it is packed. */
function placeOf(ref: GivenRefs[GivenMap]): string {
  if (!ref) return '';
  const file = ref.name ?? `${ref.width} × ${ref.height}`;
  return 'channel' in ref && ref.channel !== undefined ? `${CHANNELS[ref.channel]} of ${file}` : file;
}

/** Maps given with the photo, where its green points, and where the photo comes from. */
export function SourceTools() {
  const { given, givenGreen, origin, licence, shots } = useBench((s) => s.recipe.stations.source);
  const setDials = useBench((s) => s.setDials);
  const remove = (map: GivenMap) => {
    const { [map]: _gone, ...rest } = given;
    setDials('source', { given: rest }, '');
  };
  const maps = GIVEN_MAPS.filter((map) => given[map]);
  const settingUp = useSetup((s) => s.done !== null);
  return (
    <>
      <Box sx={{ display: 'grid', gap: 0.5, justifyItems: 'start' }}>
        <Button variant="outlined" size="small" disabled={settingUp} onClick={() => void setUpAgain()}>
          Set up from the photo
        </Button>
        <Typography color="text.secondary">
          Measures the photo and proposes size, crop, joining method, material and relief.
        </Typography>
      </Box>
      {shots.length === 0 && (
        <Box component="section" aria-label="Several shots" sx={{ display: 'grid', gap: 0.5 }}>
          <AddShots />
          <Typography color="text.secondary">
            Three to twelve shots of the same surface in different light measure its normals and albedo.
          </Typography>
        </Box>
      )}
      <Box component="section" aria-label="Supplied maps" sx={{ display: 'grid', gap: 0.75 }}>
        <strong>Supplied maps</strong>
        {maps.length === 0 && (
          <Typography color="text.secondary">
            {shots.length > 0
              ? 'None: normals are measured from the shots.'
              : 'None: all maps are derived from the photo.'}
          </Typography>
        )}
        {maps.map((map) => (
          <Box key={map} sx={{ display: 'flex', alignItems: 'center', gap: 1, minWidth: 0 }}>
            <span style={{ flex: 'none', width: 84 }}>{ROLE_WORDS[map]}</span>
            <span
              style={{ color: GREY.soft, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
            >
              {placeOf(given[map])}
            </span>
            <IconButton
              size="small"
              sx={{ ml: 'auto' }}
              aria-label={`Derive the ${map} again`}
              onClick={() => remove(map)}
            >
              <Close fontSize="small" />
            </IconButton>
          </Box>
        ))}
        {given.normal && (
          <GreenQuestion
            sha256={given.normal.sha256}
            value={givenGreen}
            onChange={(value) => setDials('source', { givenGreen: value }, 'given green')}
          />
        )}
        <AddMap />
      </Box>
      <Box component="section" aria-label="Origin and licence" sx={{ display: 'grid', gap: 1 }}>
        <strong>Origin and licence</strong>
        <WhereFromFields
          origin={origin}
          licence={licence}
          onChange={(next) => setDials('source', { ...next }, `source ${Object.keys(next)}`)}
        />
      </Box>
    </>
  );
}
