import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import type * as THREE from 'three';
import { useSill } from '../state.ts';
import type { AroundPicture } from './around.ts';
import { aroundTexture } from './around-texture.ts';
import { LIT_BY } from './lit-by.ts';
import { useAroundNow, useSeenAround } from './use-around.ts';

function useAroundTexture(picture: AroundPicture | null): THREE.DataTexture | null {
  const texture = useMemo(() => picture && aroundTexture(picture), [picture]);
  useEffect(() => () => texture?.dispose(), [texture]);
  return texture;
}

/** Puts the light from all sides into what every material of the Sill is lit by. */
export function AroundSource() {
  const invalidate = useThree((state) => state.invalidate);
  const light = useAroundNow((s) => s.light);
  const { turn, strength, background } = useSill((s) => s.around);
  const isPlace = useSill(({ shape }) => shape === 'scene' || shape === 'field');
  const { picture, isComplete } = useSeenAround(light, background || isPlace);
  const around = useAroundTexture(picture);
  const blurred = useAroundTexture(light?.blurred ?? null);
  useEffect(() => {
    LIT_BY.zAround.value = around;
    LIT_BY.zBlurred.value = blurred;
    light?.harmonics.forEach((one, k) => {
      LIT_BY.zHarmonics.value[k].set(...one);
    });
    useAroundNow.setState({ drawn: isComplete ? light : null });
    invalidate();
  }, [around, blurred, light, isComplete, invalidate]);
  useEffect(() => {
    const angle = (turn * Math.PI) / 180;
    LIT_BY.zTurned.value.set(Math.cos(angle), Math.sin(angle));
    LIT_BY.zAmount.value = strength;
    invalidate();
  }, [turn, strength, invalidate]);
  return null;
}
