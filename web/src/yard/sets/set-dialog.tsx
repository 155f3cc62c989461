import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import { wordsOf } from '../../api/words-of.ts';
import { EditDialog } from '../../edit-dialog.tsx';
import { GreenQuestion, useGreen } from '../../stations/source/green-question.tsx';
import {
  judged,
  makeTileOfSet,
  type PictureSet,
  problemsOf,
  readMember,
  type SetMember,
  setOf,
  swapped,
  withRole,
} from '../../stations/source/picture-sets.ts';
import { useWhereFrom, WhereFromFields } from '../../stations/source/where-from.tsx';
import { GREY } from '../../theme.ts';
import type { WaitingSet } from '../import-state.ts';
import { MemberCard } from './member-card.tsx';

/** A dropped set whose pictures are read one after the other. */
function useReadSet({ set: dropped }: WaitingSet) {
  const [set, setSet] = useState<PictureSet>(() => setOf(dropped));
  const change = (k: number, next: (member: SetMember) => SetMember) =>
    setSet((now) => ({
      ...now,
      members: now.members.map((member, n) => (n === k ? next(member) : member)),
    }));
  // biome-ignore lint/correctness/useExhaustiveDependencies: each file is read once
  useEffect(() => {
    const stop = new AbortController();
    void (async () => {
      for (const [k, { file }] of dropped.files.entries()) {
        const read = await readMember(file, stop.signal);
        if (stop.signal.aborted) return;
        change(k, (member) =>
          'refused' in read ? { ...member, ...read } : judged(member, read.picture, read.content),
        );
      }
    })();
    return () => stop.abort();
  }, []);
  return { set, setSet, change };
}

interface SetDialogProps {
  waiting: WaitingSet;
  /** Its place among the sets that were dropped, from 1, and how many there are. */
  place: { at: number; of: number };
  /** The tile that was made, or nothing where the set was left. */
  onEnd(tileId: string | null): void;
}

const titleOf = (count: number, { at, of }: SetDialogProps['place']) =>
  of > 1 ? `Set ${at} of ${of}: ${count} pictures for one tile` : `A set of ${count} pictures for one tile`;

/** Makes the tile of a set; cancelled, nothing is made. */
function useMaking({ facts, projectId }: WaitingSet, onEnd: SetDialogProps['onEnd']) {
  const [failure, setFailure] = useState('');
  const [done, setDone] = useState<number | null>(null);
  const stop = useRef<AbortController | null>(null);
  const whereFrom = useWhereFrom();
  const make = async (set: PictureSet) => {
    const { signal } = (stop.current = new AbortController());
    setDone(0);
    setFailure('');
    try {
      const made = {
        whereFrom,
        projectId: await projectId(),
        first: facts?.first ?? {},
        signal,
        onProgress: setDone,
      };
      const { id } = await makeTileOfSet(set, made);
      onEnd(id);
    } catch (error) {
      if (signal.aborted) return;
      setFailure(wordsOf(error));
      setDone(null);
    }
  };
  const cancel = () => {
    stop.current?.abort();
    onEnd(null);
  };
  return { failure, done, make, cancel, whereFrom };
}

/** A map set that was dropped: what each picture is, whether they fit together, where green points. */
export function SetDialog({ waiting, place, onEnd }: SetDialogProps) {
  const { set, setSet, change } = useReadSet(waiting);
  const { failure, done, make, cancel, whereFrom } = useMaking(waiting, onEnd);
  const normal = set.members.find(({ role }) => role === 'normal')?.picture ?? undefined;
  const { data: found } = useGreen(normal?.sha256);
  const green = set.green ?? found?.points ?? null;
  const reading = set.members.some(({ picture, refused, role }) => !picture && !refused && role !== 'none');
  const problems = reading ? [] : problemsOf(set);
  if (normal && found && !found.isNormal) problems.push('The normal is no normal map: leave it out.');
  else if (normal && found && !green) problems.push('Say where the green of the normal map points.');
  const waits = reading || done !== null || (normal !== undefined && !found);
  return (
    <EditDialog onClose={cancel} maxWidth="md" fullWidth aria-labelledby="set-title">
      <DialogTitle id="set-title">{titleOf(set.members.length, place)}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 2 }}>
        <TextField
          label="Name"
          value={set.name}
          onChange={(event) => setSet({ ...set, name: event.target.value })}
          sx={{ maxWidth: 320 }}
        />
        <Box>
          <Typography sx={{ color: GREY.soft, mb: 0.75 }}>
            {waiting.facts
              ? 'Read from the manifest of its crate: size, depth and colour are kept as they were.'
              : 'What each picture is was read from its name. To exchange two, drag one onto the other.'}
          </Typography>
          <Box
            component="ul"
            aria-label="Pictures of the set"
            sx={{
              display: 'grid',
              gridTemplateColumns: 'repeat(auto-fill, minmax(290px, 1fr))',
              alignItems: 'start',
              gap: 1,
              m: 0,
              p: 0,
            }}
          >
            {set.members.map((member, k) => (
              <MemberCard
                key={member.file}
                member={member}
                at={k}
                onRole={(role) => change(k, (now) => withRole(now, role))}
                onChannel={(n, role) =>
                  change(k, (now) => ({
                    ...now,
                    channels: now.channels.map((one, c) => (c === n ? role : one)),
                    doubt: null,
                  }))
                }
                onSwap={(other) => setSet({ ...set, members: swapped(set.members, k, other) })}
              />
            ))}
          </Box>
        </Box>
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
        {done !== null && (
          <LinearProgress
            variant="determinate"
            value={100 * done}
            aria-label="Setting up"
            sx={{ flex: 1, mx: 2 }}
          />
        )}
        <Button onClick={cancel}>{place.of > 1 ? 'Skip this set' : 'Cancel'}</Button>
        <Button
          variant="contained"
          disabled={waits || problems.length > 0 || set.name.trim() === ''}
          onClick={() => void make({ ...set, green })}
        >
          Make the tile
        </Button>
      </DialogActions>
    </EditDialog>
  );
}
