import { DepthWords } from './depth-words.tsx';
import { DetailMap } from './detail-map.tsx';
import { JointTools } from './joint-tools.tsx';
import { LightDisc } from './light-disc.tsx';
import { PaintTools } from './paint-tools.tsx';

/** What Relief offers beside its dials. */
export function ReliefTools() {
  return (
    <>
      <DepthWords />
      <LightDisc />
      <DetailMap />
      <JointTools />
      <PaintTools />
    </>
  );
}
