import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { type NamedSet, ROLES } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { wordsOf } from '../../api/words-of.ts';
import { GreenQuestion, useGreen } from '../../stations/source/green-question.tsx';
import { ROLE_WORDS } from '../../stations/source/role-words.ts';
import { useWhereFrom, WhereFromFields } from '../../stations/source/where-from.tsx';
import { FIGURES, GREY } from '../../theme.ts';
import {
  makeTileOfSet,
  type PictureSet,
  problemsOf,
  readMember,
  type SetMember,
  setOf,
} from './picture-sets.ts';

function Member({ member, onRole }: { member: SetMember; onRole(role: SetMember['role']): void }) {
  const { file, picture, refused, role, doubt } = member;
  return (
    <Box component="tr" sx={{ '& td': { py: 0.5, pr: 1.5, verticalAlign: 'middle' } }}>
      <td style={{ overflowWrap: 'anywhere' }}>{file}</td>
      <td>
        <Select
          size="small"
          displayEmpty
          disabled={refused !== null}
          value={role ?? ''}
          inputProps={{ 'aria-label': `What ${file} is` }}
          onChange={(event) => onRole(event.target.value as SetMember['role'])}
          sx={{ width: 140, bgcolor: GREY.card, ...(role ? {} : { outline: `2px solid ${GREY.ink}` }) }}
        >
          <MenuItem value="" disabled>
            Choose …
          </MenuItem>
          {ROLES.map((one) => (
            <MenuItem key={one} value={one}>
              {ROLE_WORDS[one]}
            </MenuItem>
          ))}
          <MenuItem value="none">Leave out</MenuItem>
        </Select>
      </td>
      <td style={{ font: `12px ${FIGURES}`, whiteSpace: 'nowrap' }}>
        {picture ? `${picture.width} × ${picture.height}` : refused ? 'refused' : 'reading …'}
      </td>
      <td style={{ color: GREY.soft }}>{refused ?? doubt ?? ''}</td>
    </Box>
  );
}

interface SetDialogProps {
  dropped: NamedSet<File>;
  projectId(): Promise<string>;
  /** The tile that was made, or nothing where the set was left. */
  onEnd(tileId: string | null): void;
}

/** A map set that was dropped: what each picture is, whether they fit together, where green points. */
export function SetDialog({ dropped, projectId, onEnd }: SetDialogProps) {
  const [set, setSet] = useState<PictureSet>(() => setOf(dropped));
  const [failure, setFailure] = useState('');
  const [making, setMaking] = useState(false);
  const [setUp, setSetUp] = useState<number | null>(null);
  const whereFrom = useWhereFrom();
  const change = (k: number, values: Partial<SetMember>) =>
    setSet((now) => ({
      ...now,
      members: now.members.map((member, n) => (n === k ? { ...member, ...values } : member)),
    }));
  // biome-ignore lint/correctness/useExhaustiveDependencies: each file is read once
  useEffect(() => {
    let wanted = true;
    void (async () => {
      for (const [k, { file }] of dropped.files.entries()) {
        const read = await readMember(file);
        if (wanted) change(k, read);
      }
    })();
    return () => {
      wanted = false;
    };
  }, []);
  const normal = set.members.find(({ role }) => role === 'normal')?.picture ?? undefined;
  const { data: found } = useGreen(normal?.sha256);
  const green = set.green ?? found?.points ?? null;
  const reading = set.members.some(({ picture, refused, role }) => !picture && !refused && role !== 'none');
  const problems = reading ? [] : problemsOf(set);
  if (normal && found && !found.isNormal) problems.push('The normal is no normal map: leave it out.');
  else if (normal && found && !green) problems.push('Say where the green of the normal map points.');
  const make = async () => {
    setMaking(true);
    try {
      const { id } = await makeTileOfSet({ ...set, green }, whereFrom, await projectId(), {
        onProgress: setSetUp,
      });
      onEnd(id);
    } catch (error) {
      setFailure(wordsOf(error));
      setMaking(false);
    }
  };
  return (
    <Dialog open onClose={() => onEnd(null)} maxWidth="md" fullWidth aria-labelledby="set-title">
      <DialogTitle id="set-title">A set of {set.members.length} pictures for one tile</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 2 }}>
        <TextField
          label="Name"
          value={set.name}
          onChange={(event) => setSet({ ...set, name: event.target.value })}
          sx={{ mt: 1, maxWidth: 320 }}
        />
        <table aria-label="Pictures of the set" style={{ borderCollapse: 'collapse', width: '100%' }}>
          <tbody>
            {set.members.map((member, k) => (
              <Member key={member.file} member={member} onRole={(role) => change(k, { role, doubt: null })} />
            ))}
          </tbody>
        </table>
        {(problems.length > 0 || failure) && (
          <Alert severity="warning" variant="outlined">
            {failure && <div>{failure}</div>}
            {problems.map((problem) => (
              <div key={problem}>{problem}</div>
            ))}
          </Alert>
        )}
        {normal && (
          <GreenQuestion
            sha256={normal.sha256}
            value={green}
            onChange={(value) => setSet({ ...set, green: value })}
          />
        )}
        <Box sx={{ maxWidth: 420 }}>
          <WhereFromFields {...whereFrom} onChange={(next) => useWhereFrom.setState(next)} />
        </Box>
      </DialogContent>
      <DialogActions>
        {setUp !== null && (
          <LinearProgress
            variant="determinate"
            value={100 * setUp}
            aria-label="Setting up"
            sx={{ flex: 1, mx: 2 }}
          />
        )}
        <Button onClick={() => onEnd(null)}>Cancel</Button>
        <Button
          variant="contained"
          disabled={
            reading ||
            making ||
            problems.length > 0 ||
            set.name.trim() === '' ||
            (normal !== undefined && !found)
          }
          onClick={() => void make()}
        >
          Make the tile
        </Button>
      </DialogActions>
    </Dialog>
  );
}
