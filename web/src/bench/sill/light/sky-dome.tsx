import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { useSill } from '../state.ts';
import { AROUND_LOOKUP, LIT_BY } from './lit-by.ts';
import { placeOf } from './rig.ts';
import { SKY } from './sky-name.ts';
import { useAroundNow } from './use-around.ts';

const RADIUS = 60;

const VERTEX = `
varying vec3 zLook;
void main() {
  zLook = position;
  gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
  // Behind everything.
  gl_Position.z = gl_Position.w * 0.999999;
}
`;

const FRAGMENT = `
${AROUND_LOOKUP}
uniform float zBlur;
uniform float zBright;
uniform vec3 zSun;
uniform vec3 zSunColour;
uniform float zSunEdge;
varying vec3 zLook;
void main() {
  vec3 look = normalize(zLook);
  vec3 seen = zRadiance(zRotated(look), zBlur);
  float inside = smoothstep(1.0 - zSunEdge * 1.4, 1.0 - zSunEdge * 0.6, dot(look, zSun));
  seen += zSunColour * inside * step(0.0, look.y);
  gl_FragColor = vec4(seen * zBright, 1.0);
}
`;

/** The brightest that the sun's disc is drawn; a real one would be ten thousand times as bright as the screen. */
const DISC = 60;

/** The surroundings as they are seen behind a shape, sharp or blurred, with the sun's disc where its light comes from. */
export function SkyDome({ isSharp }: { isSharp: boolean }) {
  const invalidate = useThree((state) => state.invalidate);
  const { around, sun, sunStrength } = useSill();
  const light = useAroundNow((s) => s.light);
  const mesh = useRef<THREE.Mesh>(null);
  const geometry = useMemo(() => new THREE.SphereGeometry(RADIUS, 48, 32), []);
  const material = useMemo(
    () =>
      new THREE.ShaderMaterial({
        vertexShader: VERTEX,
        fragmentShader: FRAGMENT,
        side: THREE.BackSide,
        depthWrite: false,
        toneMapped: false,
        uniforms: {
          zAround: LIT_BY.zAround,
          zBlurred: LIT_BY.zBlurred,
          zTurned: LIT_BY.zTurned,
          zBlur: { value: 0 },
          zBright: { value: 1 },
          zSun: { value: new THREE.Vector3() },
          zSunColour: { value: new THREE.Vector3() },
          zSunEdge: { value: 0 },
        },
      }),
    [],
  );
  useEffect(
    () => () => {
      geometry.dispose();
      material.dispose();
    },
    [geometry, material],
  );
  useEffect(() => {
    const { uniforms } = material;
    // A place stands in its surroundings: they are as sharp and as bright as they are.
    const blur = isSharp ? 0 : around.backBlur;
    uniforms.zBlur.value = blur;
    uniforms.zBright.value = around.strength * (isSharp ? 1 : around.backStrength);
    uniforms.zSun.value.set(...placeOf(sun, 1));
    const disc = light?.sun;
    const isSeen = disc && disc.radius < 0.03 && blur < 0.15;
    uniforms.zSunColour.value
      .set(...(disc?.irradiance ?? [0, 0, 0]))
      .multiplyScalar(isSeen ? DISC * sunStrength * (1 - blur / 0.15) : 0);
    uniforms.zSunEdge.value = disc ? 1 - Math.cos(disc.radius) : 0;
    invalidate();
  }, [material, isSharp, around, sun, sunStrength, light, invalidate]);
  // It stands about the viewer.
  useFrame(({ camera }) => {
    mesh.current?.position.copy(camera.position);
  });
  return (
    <mesh
      ref={mesh}
      name={SKY}
      geometry={geometry}
      material={material}
      // After all that hides it, so that no more of it is drawn than is seen.
      renderOrder={1}
      frustumCulled={false}
      raycast={() => undefined}
    />
  );
}
