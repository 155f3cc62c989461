import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { SettingValue } from '@zesty-tile/core';
import { ItemDials } from '../../../bench/dials/item-dials.tsx';
import { pressable } from '../../../bench/pressed.ts';
import { GREY } from '../../../theme.ts';
import { PictureField } from '../picture-field.tsx';
import { type Owner, putPainted } from '../use-coats.ts';
import { takeStamp } from './stamp-from-tile.ts';
import {
  CARRIED,
  type CarriedChannel,
  setCarried,
  setTip,
  TIP,
  type Tip,
  useCarried,
  useTip,
} from './tip.ts';

const WORDS: Record<CarriedChannel, string> = {
  colour: 'Colour',
  roughness: 'Roughness',
  metallic: 'Metallic',
  height: 'Height',
};
const CHANNELS = Object.keys(CARRIED) as CarriedChannel[];

/** Settings of the brush that are of use with what else is set, in the order of their use. */
function inUse(
  { print, turns, turning }: Tip,
  carries: readonly CarriedChannel[],
  fills: boolean,
): (keyof typeof TIP)[] {
  const carried = carries.map((channel) => CARRIED[channel]);
  const about = turns > 1 ? (['turnX', 'turnY'] as const) : [];
  if (fills) return [...carried, 'tolerance', 'gap', 'flow', 'mirror', 'turns', ...about];
  const isStamp = print !== 'band' && print !== 'round';
  const ofPicture = print === 'picture' && carries.includes('colour') ? (['ownColours'] as const) : [];
  return [
    ...carried,
    'radius',
    'softness',
    'flow',
    'print',
    ...ofPicture,
    ...(print === 'band' ? [] : (['spacing', 'size', 'stray', 'tint'] as const)),
    ...(isStamp ? (['turning'] as const) : []),
    ...(isStamp && turning !== 'random' ? (['degrees'] as const) : []),
    'mirror',
    'turns',
    ...about,
    'string',
    'smooth',
    'hidden',
  ];
}

interface TipDialsProps {
  owner: Owner;
  /** The part of the mask that the brush is for, by its place. */
  at: number;
  erases: boolean;
}

/** The picture that is printed: from a file, or what of the tile lies under the brush. */
function StampPicture({ picture }: { picture: Tip['picture'] }) {
  return (
    <>
      <PictureField
        label="Picture of the brush"
        picture={picture}
        onPicture={(next) => setTip({ picture: next })}
      />
      <Box>
        <Button sx={pressable(false)} onClick={takeStamp}>
          Take it from the tile …
        </Button>
      </Box>
    </>
  );
}

/** The dials of the selected brush. */
export function TipDials({ owner, at, erases }: TipDialsProps) {
  const tip = useTip((s) => s.tip);
  const carries = useCarried(owner, at);
  const isCarrying = owner.kind === 'coat' && !erases;
  const fills = useTip((s) => s.fills);
  const shown = inUse(tip, isCarrying ? carries : [], fills);
  const settings = Object.fromEntries(shown.map((key) => [key, TIP[key]]));
  return (
    <>
      {isCarrying && (
        <Box
          role="group"
          aria-label="Strokes carry"
          sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}
        >
          <span style={{ color: GREY.soft }}>Strokes carry</span>
          {CHANNELS.map((channel) => (
            <Button
              key={channel}
              aria-pressed={carries.includes(channel)}
              sx={pressable(carries.includes(channel))}
              onClick={() => {
                putPainted(owner.id, at, channel);
                setCarried(channel, !carries.includes(channel));
              }}
            >
              {WORDS[channel]}
            </Button>
          ))}
        </Box>
      )}
      <ItemDials
        settings={settings}
        values={tip as unknown as Record<string, SettingValue>}
        onChange={(key, value) => setTip({ [key]: value } as Partial<Tip>)}
      />
      {!fills && tip.print === 'picture' && <StampPicture picture={tip.picture} />}
      <span style={{ color: GREY.soft }}>
        {fills
          ? 'Press on the Floor: the region of like colour there is filled.'
          : 'Shift leads a straight line from the last stroke’s end.'}
      </span>
    </>
  );
}
