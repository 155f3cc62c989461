import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { OrbitControls } from '@react-three/drei';
import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useState } from 'react';
import * as THREE from 'three';
import { GREY } from '../../theme.ts';
import { Choices } from '../choices.tsx';
import { useBench } from '../state.ts';
import { SHAPES, type Shape } from './shapes.ts';
import { isSoftware } from './software.ts';
import { SunDisc } from './sun-disc.tsx';
import { Surface } from './surface.tsx';
import { surroundings } from './surroundings.ts';

/**
 * Light from all round: image-based where a graphics card draws. Filtering the picture of the surroundings
 * takes many seconds without one, so there a sky light and two soft fills stand for it.
 */
function Surroundings() {
  const { gl, scene, invalidate } = useThree();
  const software = useMemo(() => isSoftware(gl.getContext()), [gl]);
  useEffect(() => {
    if (software) return;
    const generator = new THREE.PMREMGenerator(gl);
    const picture = surroundings();
    const target = generator.fromEquirectangular(picture);
    scene.environment = target.texture;
    scene.environmentIntensity = 0.55;
    invalidate();
    return () => {
      scene.environment = null;
      target.dispose();
      picture.dispose();
      generator.dispose();
    };
  }, [gl, scene, invalidate, software]);
  if (!software) return null;
  return (
    <>
      <hemisphereLight args={['#ffffff', '#666666', 1.3]} />
      <directionalLight position={[2, 1, 3]} intensity={0.35} />
      <directionalLight position={[-1, -2, 3]} intensity={0.25} />
    </>
  );
}

const FIELD_OF_VIEW = 42;
/** Half of what must fit in view, with some air around it. */
const HALF_VIEW = 1.16;

/** Sets the camera so that the shape fills the view, whatever the view's shape; the user moves it from there. */
function Stance() {
  const { camera, size, invalidate } = useThree();
  const aspect = size.width / Math.max(1, size.height);
  useEffect(() => {
    const away = HALF_VIEW / Math.tan((FIELD_OF_VIEW * Math.PI) / 360) / Math.min(1, aspect);
    camera.position.set(0, -0.34, 0.94).multiplyScalar(away);
    camera.lookAt(0, 0, 0);
    invalidate();
  }, [camera, aspect, invalidate]);
  return null;
}

const SUN_AWAY = 6;

/** Where the sun stands: clockwise from the top of the view, and its height. */
export interface Sun {
  turn: number;
  rise: number;
}

function SunLight({ sun }: { sun: Sun }) {
  const turn = (sun.turn * Math.PI) / 180;
  const rise = (sun.rise * Math.PI) / 180;
  const flat = Math.cos(rise) * SUN_AWAY;
  return (
    <directionalLight
      position={[Math.sin(turn) * flat, Math.cos(turn) * flat, Math.sin(rise) * SUN_AWAY]}
      intensity={2.4}
    />
  );
}

const hasWebGl = (() => {
  try {
    return document.createElement('canvas').getContext('webgl2') !== null;
  } catch {
    return false;
  }
})();

const WORDS: Record<Shape, string> = { slab: 'Slab', ball: 'Ball' };

/** The lit view: all maps in play, under a sun that is moved by hand. */
export function Sill() {
  const maps = useBench((s) => s.maps);
  const relief = useBench((s) => s.recipe.stations.relief);
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const [shape, setShape] = useState<Shape>('slab');
  const [sun, setSun] = useState<Sun>({ turn: 312, rise: 42 });
  const depthShare = relief.depthMm / 1000 / edgeMetres;
  return (
    <Box
      component="section"
      aria-label="Sill"
      sx={{
        height: '100%',
        display: 'flex',
        flexDirection: 'column',
        p: 1.25,
        gap: 1,
        background: 'linear-gradient(#8f8f8f, #5e5e5e)',
      }}
    >
      <Box>
        <Choices
          label="Shape"
          value={shape}
          options={SHAPES.map((value) => ({ value, words: WORDS[value] }))}
          onChange={(next: Shape) => setShape(next)}
        />
      </Box>
      <Box sx={{ flex: 1, minHeight: 0, position: 'relative' }} data-sill={maps ? 'lit' : 'waiting'}>
        {hasWebGl ? (
          <Canvas
            frameloop="demand"
            camera={{ fov: FIELD_OF_VIEW }}
            dpr={[1, 2]}
            gl={{ toneMapping: THREE.NeutralToneMapping, antialias: true }}
          >
            <Surroundings />
            <Stance />
            <SunLight sun={sun} />
            {maps && (
              <Surface
                maps={maps}
                shape={shape}
                depthShare={depthShare}
                green={relief.normalY === 'up' ? 1 : -1}
              />
            )}
            <OrbitControls makeDefault enablePan={false} minDistance={1.4} maxDistance={6} />
          </Canvas>
        ) : (
          <Typography sx={{ color: '#fff', p: 2 }}>
            This browser offers no WebGL 2, so the lit view cannot be drawn. Everything else works; switch on
            hardware acceleration to see the Sill.
          </Typography>
        )}
      </Box>
      <Box
        sx={{
          alignSelf: 'flex-start',
          display: 'flex',
          alignItems: 'center',
          gap: 1.25,
          bgcolor: GREY.sheet,
          borderRadius: 1,
          px: 1.25,
          py: 0.6,
        }}
      >
        <SunDisc sun={sun} onChange={setSun} />
        <Typography variant="body2" sx={{ lineHeight: 1.25 }}>
          Sun {Math.round(sun.turn)}°, {Math.round(sun.rise)}° high
          <br />
          <span style={{ color: GREY.soft }}>drag the disc</span>
        </Typography>
      </Box>
    </Box>
  );
}
