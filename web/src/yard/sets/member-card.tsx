import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Typography from '@mui/material/Typography';
import { type GivenMap, ROLES } from '@zesty-tile/core';
import { type DragEvent, useState } from 'react';
import {
  type ChannelRole,
  channelOf,
  type MemberRole,
  type SetMember,
} from '../../stations/source/picture-sets.ts';
import { GIVEN_ROLES, ROLE_WORDS } from '../../stations/source/role-words.ts';
import { FIGURES, GREY } from '../../theme.ts';

const CHANNEL_WORDS = ['Red', 'Green', 'Blue', 'Alpha'];
/** Maps that one channel may hold. */
const ONE_PLANE = GIVEN_ROLES.filter(
  (role): role is GivenMap => role !== 'normal' && role !== 'specular' && role !== 'emission',
);
const THUMB = 88;
const CHANNEL_THUMB = 34;
/** What a dragged card carries: its place in the set. */
const CARRIES = 'application/x-set-member';

const pictureUrl = (sha256: string, edge: number, channel?: number) =>
  `/api/sources/${sha256}/picture?edge=${2 * edge}${channel === undefined ? '' : `&channel=${channel}`}`;

function Thumb({ url, edge, words }: { url: string | null; edge: number; words: string }) {
  return (
    <Box
      sx={{
        width: edge,
        height: edge,
        flex: 'none',
        bgcolor: GREY.walls,
        borderRadius: 0.5,
        overflow: 'hidden',
      }}
    >
      {url && (
        <img
          src={url}
          alt={words}
          draggable={false}
          width={edge}
          height={edge}
          style={{ display: 'block', objectFit: 'cover' }}
        />
      )}
    </Box>
  );
}

interface ChannelRowProps {
  member: SetMember;
  k: number;
  onRole(role: ChannelRole): void;
}

/** One channel of a packed picture: what it looks like alone, and the map it holds. */
function ChannelRow({ member, k, onRole }: ChannelRowProps) {
  const { file, picture, role, channels } = member;
  const channel = channelOf(member, k);
  const words = CHANNEL_WORDS[channel];
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
      <Thumb
        url={picture && pictureUrl(picture.sha256, CHANNEL_THUMB, channel)}
        edge={CHANNEL_THUMB}
        words={`${words} of ${file}`}
      />
      <Box component="span" sx={{ width: 42, color: GREY.soft }}>
        {words}
      </Box>
      {role === 'colour' ? (
        <span>{ROLE_WORDS.opacity}</span>
      ) : (
        <Select
          size="small"
          value={channels[k]}
          inputProps={{ 'aria-label': `${words} of ${file}` }}
          onChange={(event) => onRole(event.target.value as ChannelRole)}
          sx={{ width: 128, bgcolor: GREY.card }}
        >
          {ONE_PLANE.map((one) => (
            <MenuItem key={one} value={one}>
              {ROLE_WORDS[one]}
            </MenuItem>
          ))}
          <MenuItem value="none">Not used</MenuItem>
        </Select>
      )}
    </Box>
  );
}

interface MemberCardProps {
  member: SetMember;
  /** Its place in the set. */
  at: number;
  onRole(role: MemberRole): void;
  onChannel(k: number, role: ChannelRole): void;
  /** Another card was dropped on this one: the two exchange what they are. */
  onSwap(other: number): void;
}

/** One picture of a set: what it looks like, and what it is taken for. Dragged onto another, the two exchange that. */
export function MemberCard({ member, at, onRole, onChannel, onSwap }: MemberCardProps) {
  const { file, picture, refused, role, channels, doubt } = member;
  const [over, setOver] = useState(false);
  const carries = (event: DragEvent) => event.dataTransfer.types.includes(CARRIES);
  return (
    <Box
      component="li"
      aria-label={file}
      draggable
      onDragStart={(event) => event.dataTransfer.setData(CARRIES, String(at))}
      onDragOver={(event) => {
        if (!carries(event)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        if (!carries(event)) return;
        event.preventDefault();
        onSwap(Number(event.dataTransfer.getData(CARRIES)));
      }}
      sx={{
        display: 'flex',
        gap: 1.25,
        p: 1,
        minWidth: 0,
        cursor: 'grab',
        bgcolor: GREY.card,
        border: `1px solid ${GREY.line}`,
        outline: over ? `2px solid ${GREY.ink}` : 'none',
        borderRadius: 1,
        opacity: role === 'none' ? 0.62 : 1,
      }}
    >
      <Thumb url={picture && pictureUrl(picture.sha256, THUMB)} edge={THUMB} words={file} />
      <Box sx={{ display: 'grid', gap: 0.5, minWidth: 0, alignContent: 'start' }}>
        <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }} title={file}>
          {file}
        </Box>
        <Box sx={{ font: `12px ${FIGURES}`, color: GREY.soft }}>
          {picture ? `${picture.width} × ${picture.height}` : refused ? 'refused' : 'reading …'}
        </Box>
        <Select
          size="small"
          displayEmpty
          disabled={refused !== null}
          value={role ?? ''}
          inputProps={{ 'aria-label': `What ${file} is` }}
          onChange={(event) => onRole(event.target.value as MemberRole)}
          sx={{ width: 178, bgcolor: GREY.card, ...(role ? {} : { outline: `2px solid ${GREY.ink}` }) }}
        >
          <MenuItem value="" disabled>
            Choose …
          </MenuItem>
          {ROLES.map((one) => (
            <MenuItem key={one} value={one}>
              {ROLE_WORDS[one]}
            </MenuItem>
          ))}
          <MenuItem value="packed">One map per channel</MenuItem>
          <MenuItem value="none">Leave out</MenuItem>
        </Select>
        {role !== 'none' &&
          channels.map((_, k) => (
            <ChannelRow
              key={channelOf(member, k)}
              member={member}
              k={k}
              onRole={(one) => onChannel(k, one)}
            />
          ))}
        {(refused || doubt) && (
          <Typography sx={{ color: GREY.soft, fontSize: 12 }}>{refused ?? doubt}</Typography>
        )}
      </Box>
    </Box>
  );
}
