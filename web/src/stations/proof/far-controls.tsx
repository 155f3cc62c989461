import type { FarFilter } from '@zesty-tile/core';
import { Choices } from '../../bench/choices.tsx';
import { type FarView, useSight } from '../../bench/floor/sight.ts';

/** A far field on the Floor: from above or along the ground, and how a game would look at it. */
export function FarControls() {
  const { far, filter } = useSight();
  return (
    <>
      <Choices
        label="Far field"
        value={far ?? 'near'}
        options={[
          { value: 'near', words: 'Near' },
          { value: 'above', words: 'Far' },
          { value: 'along', words: 'Grazing' },
        ]}
        onChange={(next: FarView | 'near') => useSight.setState({ far: next === 'near' ? null : next })}
      />
      {far && (
        <Choices
          label="Texture filtering"
          value={filter}
          options={[
            { value: 'none', words: 'No mips' },
            { value: 'mips', words: 'Mips' },
            { value: 'eight', words: 'Mips, 8 × anisotropic' },
          ]}
          onChange={(next: FarFilter) => useSight.setState({ filter: next })}
        />
      )}
    </>
  );
}
