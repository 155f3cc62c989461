import { type Asked, answered, READY } from '@zesty-tile/core';

// A helper of the engine: does what it is asked until its engine is gone.
addEventListener('message', ({ data }: MessageEvent<Asked>) => {
  void answered(data, (answer, handedOver) => postMessage(answer, { transfer: handedOver }));
});
postMessage(READY);
