import { expect } from 'chai';
import * as THREE from 'three';
import { directionOf, solidAngleOf } from '../../core/src/lit/around/panorama.ts';

import type { AroundPicture } from '../src/bench/sill/light/around.ts';
import { SKY } from '../src/bench/sill/light/sky-name.ts';
import { useSill } from '../src/bench/sill/state.ts';
import { behindNow, notTraced } from '../src/bench/sill/traced/behind.ts';
import { tracedSky } from '../src/bench/sill/traced/sky.ts';
import { freeStanding, heightAt, standingIn } from '../src/bench/sill/traced/standing.ts';

const HEIGHTS = { width: 4, height: 2, data: [0, 1, 2, 3, 4, 5, 6, 7] };

/** Surroundings of one radiance, as half floats. */
function evenly(width: number, radiance: number): AroundPicture {
  const rgba = new Uint16Array(2 * width * width).fill(THREE.DataUtils.toHalfFloat(radiance));
  return { width, height: width / 2, rgba };
}

describe('what is traced', () => {
  it('heights are looked up between their pixels, and wrap', () => {
    expect(heightAt(HEIGHTS, 0.125, 0.25)).to.equal(0);
    expect(heightAt(HEIGHTS, 0.25, 0.25)).to.equal(0.5);
    expect(heightAt(HEIGHTS, 0.125, 0.5)).to.equal(2);
    for (const [u, v] of [
      [0.3, 0.6],
      [0, 0],
      [0.99, 0.01],
    ])
      for (const away of [-2, -1, 1, 3])
        expect(heightAt(HEIGHTS, u + away, v + away)).to.be.closeTo(heightAt(HEIGHTS, u, v), 1e-9);
  });

  it('a surface stands where relief has moved it, with the tile’s own coordinates, and the sky is left out', () => {
    const scene = new THREE.Scene();
    const geometry = new THREE.PlaneGeometry(2, 2, 1, 1);
    geometry.setAttribute('zLift', geometry.getAttribute('normal').clone());
    const relief = new THREE.DataTexture(new Float32Array([1]), 1, 1);
    const material = new THREE.MeshPhysicalMaterial({
      displacementMap: relief,
      displacementScale: 0.2,
      displacementBias: -0.1,
    });
    const mesh = new THREE.Mesh(geometry, material);
    mesh.userData.tile = { repeat: [3, 2], edge: 1, isOther: false };
    mesh.position.set(5, 0, 0);
    const sky = new THREE.Mesh(new THREE.SphereGeometry(60), new THREE.MeshBasicMaterial());
    sky.name = SKY;
    const hidden = new THREE.Mesh(geometry, material);
    hidden.visible = false;
    scene.add(mesh, sky, hidden);
    const still = standingIn(scene);
    expect(still.children).to.have.length(1);
    const { geometry: moved } = still.children[0] as THREE.Mesh;
    moved.computeBoundingBox();
    const { min, max } = moved.boundingBox!;
    expect([min.x, max.x]).to.deep.equal([4, 6]);
    expect(max.z).to.be.closeTo(0.1, 1e-6);
    const uv = moved.getAttribute('uv');
    expect(Math.max(...Array.from({ length: uv.count }, (_, i) => uv.getX(i)))).to.equal(3);
    // What is on the Sill stays as it is.
    expect(geometry.getAttribute('position').getZ(0)).to.equal(0);
    expect(geometry.getAttribute('uv').getX(1)).to.equal(1);
    freeStanding(still);
  });

  it('the sky holds the surroundings at their strength, and the sun at its own, in half floats', () => {
    const sun = { towards: [0, 0.6, 0.8] as [number, number, number], radius: 0.0047 };
    const { texture, by } = tracedSky(evenly(64, 0.5), 2, [{ ...sun, irradiance: [30, 30, 30] }]);
    const { width, height, data } = texture.image as { width: number; height: number; data: Uint16Array };
    expect([width, height]).to.deep.equal([1024, 512]);
    let facing = 0;
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const value = by * THREE.DataUtils.fromHalfFloat(data[4 * (y * width + x)]);
        const at = directionOf(x, y, { width, height });
        const cosine = at[0] * sun.towards[0] + at[1] * sun.towards[1] + at[2] * sun.towards[2];
        facing += value * solidAngleOf(y, { width, height }) * Math.max(0, cosine);
      }
    }
    // π times an even radiance of 1, and the sun.
    expect(facing).to.be.closeTo(Math.PI + 30, 0.1);
    texture.dispose();
  });

  it('says what cannot be traced, and what is seen behind', () => {
    const state = useSill.getState();
    const now = { ...state, shape: 'ball', show: 'finished', beside: null, triplanar: false } as const;
    expect(notTraced(now)).to.equal('');
    expect(notTraced({ ...now, show: 'sheen' })).to.match(/choose Finished/);
    expect(notTraced({ ...now, shape: 'field' })).to.match(/haze/);
    expect(notTraced({ ...now, triplanar: true })).to.match(/frames/);
    expect(notTraced({ ...now, beside: { by: 'albedo' } as never })).to.match(/end the comparison/);
    useSill.setState({ shape: 'ball' });
    expect(behindNow()).to.equal(null);
    useSill.setState({ shape: 'scene' });
    expect(behindNow()).to.deep.equal({ blur: 0, strength: 1 });
    useSill.setState(state);
  });
});
