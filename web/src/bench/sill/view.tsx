import Button from '@mui/material/Button';
import { OrbitControls } from '@react-three/drei';
import { Canvas, useThree } from '@react-three/fiber';
import { Component, type ReactNode, useEffect, useMemo, useState } from 'react';
import * as THREE from 'three';
import type { ShownMaps } from '../../engine/protocol.ts';
import { STATION_VIEWS } from '../../stations/index.ts';
import { GREY } from '../../theme.ts';
import { useBench } from '../state.ts';
import { BesideLine } from './beside/beside-line.tsx';
import { useBesideMaps } from './beside/use-other-maps.ts';
import { MINE, OTHER } from './drawing.ts';
import { GreySteps, WhiteLight } from './grey-steps.tsx';
import { Lights } from './light/lights.tsx';
import { SurroundingsLight } from './light/surroundings-light.tsx';
import { MatteSlab } from './matte.tsx';
import { Painter } from './painter.tsx';
import { Terrace } from './scene/terrace.tsx';
import { STANCES, type Stand } from './shapes.ts';
import { isSoftware } from './software.ts';
import { Solid } from './solid.tsx';
import { useSill } from './state.ts';
import { SurfaceRays } from './surface-rays.tsx';
import { hearThree } from './three-messages.ts';

hearThree();

const FIELD_OF_VIEW = 42;
/** Straight on, with room for the grey steps. */
const STRAIGHT_ON = { half: 1.42, from: [0, 0, 1] as [number, number, number] };
/** The right button turns the shape too: while the brush is selected the left one paints on it. */
const TURNING_BUTTONS = { LEFT: THREE.MOUSE.ROTATE, MIDDLE: THREE.MOUSE.DOLLY, RIGHT: THREE.MOUSE.ROTATE };
/** So long the graphics card is left alone before the view is built again. */
const PAUSE_MS = 600;

/** Sets the camera so that the shape fills the view, whatever the view's shape; the user moves it from there. */
function Stance({ half, tall = half, from }: Stand) {
  const { camera, size, invalidate } = useThree();
  const isHalved = useSill((s) => s.beside !== null && s.split === 'halves');
  const aspect = size.width / (isHalved ? 2 : 1) / Math.max(1, size.height);
  useEffect(() => {
    const away = Math.max(tall, half / aspect) / Math.tan((FIELD_OF_VIEW * Math.PI) / 360);
    camera.position.set(...from).multiplyScalar(away);
    camera.lookAt(0, 0, 0);
    invalidate();
  }, [camera, aspect, half, tall, from, invalidate]);
  return null;
}

/** How bright the picture is, and how what is brighter than the screen is reduced. */
function Exposure({ exposure, tone }: { exposure: number; tone: 'neutral' | 'plain' }) {
  const { gl, invalidate } = useThree();
  useEffect(() => {
    gl.toneMapping = tone === 'neutral' ? THREE.NeutralToneMapping : THREE.LinearToneMapping;
    gl.toneMappingExposure = 2 ** exposure;
    invalidate();
  }, [gl, exposure, tone, invalidate]);
  return null;
}

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

/** Everything that is in the light: the current tile, and what is held beside it. */
function Standing({ maps, other }: { maps: ShownMaps; other: ShownMaps | null }) {
  const isScene = useSill((s) => s.shape === 'scene');
  const isAlbedo = useSill((s) => s.beside?.kind === 'albedo');
  const Whole = isScene ? Terrace : Solid;
  return (
    <>
      <group name={MINE}>
        <Whole maps={maps} />
      </group>
      {other && (
        <group name={OTHER}>
          <Whole maps={other} albedoAlone={isAlbedo} />
        </group>
      )}
    </>
  );
}

/** The shape in the light, or plain words where it cannot be drawn. */
export function SillView() {
  const maps = useBench((s) => s.maps);
  const { shape, sun, show, matteDivisor, around, exposure, tone, beside, split: splitBy, line } = useSill();
  const { OverSill } = STATION_VIEWS[useBench((s) => s.station)];
  const [build, setBuild] = useState(0);
  const [lost, setLost] = useState(false);
  const [problem, setProblem] = useState('');
  const [by] = useState(drawnBy);
  const made = useBesideMaps(beside);
  const other = beside?.kind === 'albedo' ? maps : made.maps;
  const isSplit = other !== null && show !== 'eye';
  const split = useMemo(() => (isSplit ? { by: splitBy, line } : null), [isSplit, splitBy, line]);
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
        gl={{ toneMapping: THREE.NeutralToneMapping, antialias: by === 'card' }}
        data-build={build}
        data-beside={beside ? (isSplit ? 'ready' : 'waiting') : undefined}
      >
        <ContextWatch onLost={onLost} />
        <Exposure exposure={exposure} tone={tone} />
        <Painter split={split} />
        {show === 'eye' ? (
          <>
            <Stance {...STRAIGHT_ON} />
            <WhiteLight {...sun} />
            <GreySteps />
            {maps && <MatteSlab maps={maps} factor={matteDivisor} />}
          </>
        ) : (
          <>
            <SurroundingsLight around={around} onProblem={setProblem} />
            <Stance {...STANCES[shape]} />
            <Lights />
            <SurfaceRays />
            {maps && <Standing maps={maps} other={isSplit ? other : null} />}
          </>
        )}
        <OrbitControls
          makeDefault
          enablePan={false}
          minDistance={0.4}
          maxDistance={14}
          mouseButtons={TURNING_BUTTONS}
        />
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
