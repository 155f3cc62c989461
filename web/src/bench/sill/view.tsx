import Button from '@mui/material/Button';
import { Canvas, useThree } from '@react-three/fiber';
import { Component, type ReactNode, useEffect, useMemo, useState } from 'react';
import * as THREE from 'three';
import type { ShownMaps } from '../../engine/protocol.ts';
import { STATION_VIEWS } from '../../stations/index.ts';
import { GREY } from '../../theme.ts';
import { useBench } from '../state.ts';
import { BesideLine } from './beside/beside-line.tsx';
import { isOfThis, missingOf } from './beside/missing.ts';
import { useBesideMaps } from './beside/use-other-maps.ts';
import { OpenGround } from './field/open-ground.tsx';
import { MINE, OTHER } from './frame/drawing.ts';
import { Painter } from './frame/painter.tsx';
import { GreySteps, WhiteLight } from './grey-steps.tsx';
import { AroundSource } from './light/around-source.tsx';
import { Lights } from './light/lights.tsx';
import { SkyDome } from './light/sky-dome.tsx';
import { useAroundNow, useMakeAround } from './light/use-around.ts';
import { isLit } from './material/look.ts';
import { MatteSlab } from './matte.tsx';
import { Terrace } from './scene/terrace.tsx';
import { isSoftware } from './software.ts';
import { Solid } from './solid.tsx';
import { FIELD_OF_VIEW, type Stand } from './stances.ts';
import { type SillMap, useSill } from './state.ts';
import { SurfaceRays } from './surface-rays.tsx';
import { hearThree } from './three-messages.ts';
import { TurnByKeys } from './turn-by-keys.tsx';
import { Orbit, Stance, Viewpoint } from './viewpoint.tsx';

hearThree();

/** Straight on, with room for the grey steps. */
const STRAIGHT_ON: Stand = { half: 1.42, from: [0, 0, 1] };
/** So long the graphics card is left alone before the view is built again. */
const PAUSE_MS = 600;

/** Notices when the graphics card releases the drawing context. */
function ContextWatch({ onLost }: { onLost(): void }) {
  const { gl } = useThree();
  useEffect(() => {
    const canvas = gl.domElement;
    canvas.addEventListener('webglcontextlost', onLost);
    return () => canvas.removeEventListener('webglcontextlost', onLost);
  }, [gl, onLost]);
  return null;
}

/** What draws WebGL 2 here: a graphics card, the processor, or nothing. */
function drawnBy(): 'card' | 'processor' | null {
  try {
    const context = document.createElement('canvas').getContext('webgl2');
    return context && (isSoftware(context) ? 'processor' : 'card');
  } catch {
    return null;
  }
}

const words = { color: '#fff', padding: 16, textShadow: '0 0 3px #000' };

/** Says why there is no lit view, in place of a page that fell over. */
class Fallback extends Component<{ children: ReactNode; onAgain(): void }, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override render() {
    if (!this.state.broken) return this.props.children;
    return (
      <div role="status" style={words}>
        The lit view could not be drawn. Everything else works.{' '}
        <Button onClick={this.props.onAgain} sx={{ ml: 1, color: GREY.ink }}>
          Try again
        </Button>
      </div>
    );
  }
}

const NOTHING: readonly SillMap[] = [];

/** Everything that is in the light: the current tile, and what is held beside it. */
function Standing({ maps, other }: { maps: ShownMaps; other: ShownMaps | null }) {
  const shape = useSill((s) => s.shape);
  const beside = useSill((s) => s.beside);
  const without = useMemo(() => missingOf(beside), [beside]);
  const Whole = shape === 'scene' ? Terrace : shape === 'field' ? OpenGround : Solid;
  return (
    <>
      <group name={MINE}>
        <Whole maps={maps} without={NOTHING} />
      </group>
      {other && (
        <group name={OTHER}>
          <Whole maps={other} without={without} />
        </group>
      )}
    </>
  );
}

/** The shape in the light, or plain words where it cannot be drawn. */
export function SillView() {
  const maps = useBench((s) => s.maps);
  const { shape, sun, show, matteDivisor, around, beside } = useSill();
  const { split: splitBy, line } = useSill();
  useMakeAround();
  const { light, problem } = useAroundNow();
  const { OverSill } = STATION_VIEWS[useBench((s) => s.station)];
  const [build, setBuild] = useState(0);
  const [lost, setLost] = useState(false);
  const [by] = useState(drawnBy);
  const made = useBesideMaps(beside);
  const other = beside && isOfThis(beside) ? maps : made.maps;
  const isSplit = other !== null && show !== 'eye';
  const split = useMemo(() => (isSplit ? { by: splitBy, line } : null), [isSplit, splitBy, line]);
  const isPlace = shape === 'scene' || shape === 'field';
  useEffect(() => {
    if (!lost) return;
    const timer = setTimeout(() => {
      setBuild((n) => n + 1);
      setLost(false);
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [lost]);
  const [onLost] = useState(() => () => setLost(true));
  if (!by) {
    return (
      <div role="status" style={words}>
        This browser offers no WebGL 2, so the lit view cannot be drawn. Everything else works; switch on
        hardware acceleration to see the Sill.
      </div>
    );
  }
  if (lost) {
    return (
      <div role="status" style={words}>
        The graphics context was lost and is being restored. Your work is unaffected.
      </div>
    );
  }
  return (
    <Fallback key={build} onAgain={() => setBuild(build + 1)}>
      <Canvas
        frameloop="demand"
        camera={{ fov: FIELD_OF_VIEW }}
        dpr={[1, 2]}
        shadows="percentage"
        gl={{ toneMapping: THREE.NoToneMapping, antialias: false }}
        data-build={build}
        data-beside={beside ? (isSplit ? 'ready' : 'waiting') : undefined}
      >
        <ContextWatch onLost={onLost} />
        <Painter split={split} />
        <AroundSource />
        {show === 'eye' ? (
          <>
            <Stance stand={STRAIGHT_ON} />
            <WhiteLight {...sun} />
            <GreySteps />
            {maps && <MatteSlab maps={maps} factor={matteDivisor} />}
          </>
        ) : (
          <>
            {(around.background || isPlace) && isLit(show) && <SkyDome isSharp={isPlace} />}
            <Viewpoint />
            <Lights />
            <SurfaceRays />
            {maps && light && <Standing maps={maps} other={isSplit ? other : null} />}
          </>
        )}
        <Orbit />
        <TurnByKeys />
      </Canvas>
      {OverSill && <OverSill />}
      {show !== 'eye' && <BesideLine isReady={isSplit} problem={made.problem} />}
      {problem && (
        <div role="alert" style={{ ...words, position: 'absolute', bottom: 0 }}>
          {problem} The Sill continues without them.
        </div>
      )}
    </Fallback>
  );
}
