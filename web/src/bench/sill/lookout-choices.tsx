import { Choices } from '../choices.tsx';
import { DISTANCES, LOOKOUTS } from './lookouts.ts';
import { returnViewer, useSill } from './state.ts';

/** From where a place is looked at. */
export function LookoutChoices() {
  const { shape, lookout, distance } = useSill();
  const options = <T extends string>(of: Record<T, { words: string }>) =>
    (Object.keys(of) as T[]).map((value) => ({ value, words: of[value].words }));
  if (shape === 'scene')
    return (
      <Choices
        label="Viewpoint"
        value={lookout}
        options={options(LOOKOUTS)}
        onChange={(value) => useSill.setState({ lookout: value })}
        onAgain={returnViewer}
      />
    );
  return (
    <Choices
      label="Distance"
      value={distance}
      options={options(DISTANCES)}
      onChange={(value) => useSill.setState({ distance: value })}
      onAgain={returnViewer}
    />
  );
}
