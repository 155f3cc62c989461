import { ZoneTools } from '../../masks/mask-tools.tsx';
import { CurveEditor } from './curve-editor.tsx';
import { GreyMap } from './grey-map.tsx';

/** What Finish offers beside its dials. */
export function FinishTools() {
  return (
    <>
      <CurveEditor />
      <GreyMap />
      <ZoneTools station="finish" />
    </>
  );
}
