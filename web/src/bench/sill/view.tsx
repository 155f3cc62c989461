import Button from '@mui/material/Button';
import { OrbitControls } from '@react-three/drei';
import { Canvas, useFrame, useThree } from '@react-three/fiber';
import { Component, type ReactNode, useEffect, useState } from 'react';
import * as THREE from 'three';
import { useGauge } from '../../stations/gauge/use-gauge.ts';
import { GREY } from '../../theme.ts';
import { useBench } from '../state.ts';
import { GreySteps, WhiteLight } from './grey-steps.tsx';
import { MatteSlab } from './matte.tsx';
import { STANCES } from './shapes.ts';
import { type Sun, useSill } from './state.ts';
import { StillTaker } from './still.tsx';
import { Surface } from './surface.tsx';
import { sunOf } from './surroundings.ts';
import { SurroundingsLight } from './surroundings-light.tsx';

const FIELD_OF_VIEW = 42;
/** Straight on, with room for the grey steps. */
const STRAIGHT_ON = { half: 1.42, from: [0, 0, 1] as [number, number, number] };
/** So long the graphics card is left alone before the view is built again. */
const PAUSE_MS = 600;
const SUN_AWAY = 6;
/** Light from the side, for bumps. */
const SIDE_RISE = 9;

/** Sets the camera so that the shape fills the view, whatever the view's shape; the user moves it from there. */
function Stance({ half, from }: { half: number; from: [number, number, number] }) {
  const { camera, size, invalidate } = useThree();
  const aspect = size.width / Math.max(1, size.height);
  useEffect(() => {
    const away = half / Math.tan((FIELD_OF_VIEW * Math.PI) / 360) / Math.min(1, aspect);
    camera.position.set(...from).multiplyScalar(away);
    camera.lookAt(0, 0, 0);
    invalidate();
  }, [camera, aspect, half, from, invalidate]);
  return null;
}

function SunLight({ sun, colour, strength }: { sun: Sun; colour: string; strength: number }) {
  const turn = (sun.turn * Math.PI) / 180;
  const rise = (sun.rise * Math.PI) / 180;
  const flat = Math.cos(rise) * SUN_AWAY;
  return (
    <directionalLight
      position={[Math.sin(turn) * flat, Math.cos(turn) * flat, Math.sin(rise) * SUN_AWAY]}
      intensity={strength}
      color={colour}
    />
  );
}

/** How bright the picture is, and how what is brighter than the screen is brought down. */
function Exposure({ exposure, tone }: { exposure: number; tone: 'neutral' | 'plain' }) {
  const { gl, invalidate } = useThree();
  useEffect(() => {
    gl.toneMapping = tone === 'neutral' ? THREE.NeutralToneMapping : THREE.LinearToneMapping;
    gl.toneMappingExposure = 2 ** exposure;
    invalidate();
  }, [gl, exposure, tone, invalidate]);
  return null;
}

/** Degrees a second. */
const TURN_SPEED = 24;

/** Lets the sun go round while it is asked to. */
function TurningSun() {
  const turning = useSill((s) => s.turning);
  useFrame((_state, seconds) => {
    if (!turning) return;
    const { sun } = useSill.getState();
    useSill.setState({ sun: { ...sun, turn: (sun.turn + TURN_SPEED * Math.min(0.1, seconds)) % 360 } });
  });
  const invalidate = useThree((state) => state.invalidate);
  useEffect(() => {
    if (turning) invalidate();
  }, [turning, invalidate]);
  return null;
}

/** Notices when the graphics card lets go of the drawing context. */
function ContextWatch({ onLost }: { onLost(): void }) {
  const { gl } = useThree();
  useEffect(() => {
    const canvas = gl.domElement;
    canvas.addEventListener('webglcontextlost', onLost);
    return () => canvas.removeEventListener('webglcontextlost', onLost);
  }, [gl, onLost]);
  return null;
}

const hasWebGl = (): boolean => {
  try {
    return document.createElement('canvas').getContext('webgl2') !== null;
  } catch {
    return false;
  }
};

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

/** The shape in the light, or plain words where it cannot be drawn. */
export function SillView() {
  const maps = useBench((s) => s.maps);
  const { shape, sun, show, off, around, exposure, tone, times } = useSill();
  const eye = useBench((s) => s.recipe.stations.gauge.eye);
  const isHeld = useGauge((s) => s.isHeld);
  const [build, setBuild] = useState(0);
  const [lost, setLost] = useState(false);
  const [able] = useState(hasWebGl);
  useEffect(() => {
    if (!lost) return;
    const timer = setTimeout(() => {
      setBuild((n) => n + 1);
      setLost(false);
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [lost]);
  const [onLost] = useState(() => () => setLost(true));
  if (!able) {
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
        The graphics card let go of the lit view; it is being built again. Nothing else is touched.
      </div>
    );
  }
  return (
    <Fallback key={build} onAgain={() => setBuild(build + 1)}>
      <Canvas
        frameloop="demand"
        camera={{ fov: FIELD_OF_VIEW }}
        dpr={[1, 2]}
        gl={{ toneMapping: THREE.NeutralToneMapping, antialias: true }}
        data-build={build}
      >
        <ContextWatch onLost={onLost} />
        <Exposure exposure={exposure} tone={tone} />
        <StillTaker />
        <TurningSun />
        {show === 'eye' ? (
          <>
            <Stance {...STRAIGHT_ON} />
            <WhiteLight {...sun} />
            <GreySteps />
            {maps && <MatteSlab maps={maps} factor={isHeld ? eye : 1} />}
          </>
        ) : (
          <>
            <SurroundingsLight {...around} />
            <Stance {...STANCES[shape]} />
            <SunLight
              sun={show === 'side' ? { ...sun, rise: SIDE_RISE } : sun}
              colour={sunOf(around.name).colour}
              strength={sunOf(around.name).strength}
            />
            {maps && <Surface maps={maps} shape={shape} show={show} off={off} times={times} />}
          </>
        )}
        <OrbitControls makeDefault enablePan={false} minDistance={1.4} maxDistance={6} />
      </Canvas>
    </Fallback>
  );
}
