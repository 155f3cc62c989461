import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { hexOfLinear } from '@zesty-tile/core';
import type { ReactNode } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { endPick, startPick } from '../../../bench/floor/use-pick.ts';
import { LETTERS } from '../../../bench/shortcuts.ts';
import { useBench } from '../../../bench/state.ts';
import { ColourField } from '../../../palettes/colour-field.tsx';
import { usePalettes } from '../../../palettes/use-palettes.ts';
import { CARD, FIGURES, GREY } from '../../../theme.ts';
import { useCoats } from '../use-coats.ts';
import {
  AwayIcon,
  EraseIcon,
  FillIcon,
  LargerIcon,
  MirrorIcon,
  PaintIcon,
  PickIcon,
  SmallerIcon,
} from './icons.tsx';
import { nextMirror, scaleTip, setTip, TIP, useTip } from './tip.ts';

/** By how much a key changes the brush's size. */
const STEP = 1.2;

/** Takes the brush or the fill, to paint with or to erase. */
function take(fills: boolean, erase: boolean): void {
  useTip.setState({ fills });
  useCoats.setState(({ brush }) => ({ brush: brush && { ...brush, erase } }));
}

/** Takes the colour of the tile as it is with its coats. */
const pickColour = () =>
  startPick({
    words: 'Press on the colour for the brush',
    view: 'albedo',
    take: ({ values }) => {
      endPick();
      setTip({ colour: hexOfLinear(values) });
    },
  });

interface ToolProps {
  words: string;
  letter: string;
  pressed?: boolean;
  onPress(): void;
  children: ReactNode;
}

/** One tool, by press or by its key, which its tip names. */
function Tool({ words, letter, pressed, onPress, children }: ToolProps) {
  useHotkeys(letter, onPress, LETTERS);
  return (
    <Tooltip title={`${words}, key ${letter.toUpperCase()}`} placement="right">
      <IconButton
        aria-label={words}
        aria-pressed={pressed}
        aria-keyshortcuts={letter.toUpperCase()}
        onClick={onPress}
        sx={{
          width: 34,
          height: 34,
          borderRadius: 0.75,
          color: pressed ? GREY.onInk : GREY.ink,
          bgcolor: pressed ? GREY.ink : 'transparent',
          '&:hover': { bgcolor: pressed ? GREY.ink : GREY.line },
        }}
      >
        {children}
      </IconButton>
    </Tooltip>
  );
}

/** The tools of the brush in the margin of the Floor, while it is selected. */
export function BrushStrip({ edgeMetres }: { edgeMetres: number }) {
  const brush = useCoats((s) => s.brush);
  const { tip, fills } = useTip();
  const { data: palettes } = usePalettes(useBench((s) => s.projectId));
  if (!brush) return null;
  const names = TIP.mirror.names[TIP.mirror.options.indexOf(tip.mirror)];
  const mm = 2 * tip.radius * 1000 * edgeMetres;
  return (
    <Box
      role="toolbar"
      aria-label="Brush"
      aria-orientation="vertical"
      sx={{
        ...CARD,
        position: 'absolute',
        left: 2,
        top: '50%',
        transform: 'translateY(-50%)',
        p: 0.25,
        display: 'grid',
        justifyItems: 'center',
        gap: 0.25,
      }}
    >
      <Tool words="Paint" letter="p" pressed={!fills && !brush.erase} onPress={() => take(false, false)}>
        <PaintIcon />
      </Tool>
      <Tool words="Erase" letter="e" pressed={brush.erase} onPress={() => take(false, true)}>
        <EraseIcon />
      </Tool>
      <Tool words="Fill" letter="f" pressed={fills && !brush.erase} onPress={() => take(true, false)}>
        <FillIcon />
      </Tool>
      <Tool words="Smaller" letter="s" onPress={() => scaleTip(1 / STEP)}>
        <SmallerIcon />
      </Tool>
      <Tool words="Larger" letter="g" onPress={() => scaleTip(STEP)}>
        <LargerIcon />
      </Tool>
      <Tool words={`Mirror: ${names.toLowerCase()}`} letter="x" onPress={nextMirror}>
        <MirrorIcon mirror={tip.mirror} />
      </Tool>
      <Tool words="Put the brush away" letter="q" onPress={() => useCoats.setState({ brush: null })}>
        <AwayIcon />
      </Tool>
      {!brush.erase && (
        <>
          <Tool words="Pick a colour from the tile" letter="k" onPress={pickColour}>
            <PickIcon />
          </Tool>
          <Box sx={{ '& > button': { width: 32 } }}>
            <ColourField
              label="Colour of the brush"
              hex={tip.colour}
              offered={(palettes ?? []).flatMap((one) => one.colours)}
              onHex={(colour) => setTip({ colour })}
            />
          </Box>
        </>
      )}
      <span style={{ font: `11px ${FIGURES}`, color: GREY.soft, textAlign: 'center', paddingBottom: 2 }}>
        {mm < 100 ? mm.toFixed(1) : mm.toFixed(0)}
        <br />
        mm
      </span>
    </Box>
  );
}
