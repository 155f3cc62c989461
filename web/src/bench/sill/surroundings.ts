import * as THREE from 'three';

const WIDTH = 64;
const HEIGHT = 32;

/** Radiance of an overcast day with a brighter zenith over pale ground, as an equirectangular float picture. */
export function surroundings(): THREE.DataTexture {
  const data = new Float32Array(4 * WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++) {
    // Row 0 is straight down.
    const rise = Math.sin(((y + 0.5) / HEIGHT - 0.5) * Math.PI);
    for (let x = 0; x < WIDTH; x++) {
      const turn = (2 * Math.PI * x) / WIDTH;
      const window =
        0.35 * Math.max(0, Math.cos(turn - 0.9)) ** 4 * Math.max(0, 1 - Math.abs(rise - 0.35) * 3);
      const sky = 0.75 + 0.45 * Math.max(0, rise) + 2.2 * window;
      const ground = 0.28;
      const t = Math.min(1, Math.max(0, rise * 6 + 0.5));
      const v = ground + (sky - ground) * t;
      const at = 4 * (y * WIDTH + x);
      data[at] = v;
      data[at + 1] = v;
      data[at + 2] = v;
      data[at + 3] = 1;
    }
  }
  const texture = new THREE.DataTexture(data, WIDTH, HEIGHT, THREE.RGBAFormat, THREE.FloatType);
  texture.mapping = THREE.EquirectangularReflectionMapping;
  texture.magFilter = THREE.LinearFilter;
  texture.minFilter = THREE.LinearFilter;
  texture.needsUpdate = true;
  return texture;
}
