import { parentPort } from 'node:worker_threads';
import { type Asked, answered, PLANES, READY } from '@zesty-tile/core';
import { COLLECT, collectNow } from './collect.ts';

// A helper thread of a team: does what it is asked until it is ended.
parentPort!.on('message', (asked: Asked | typeof COLLECT) => {
  if (asked === COLLECT) {
    PLANES.empty();
    collectNow();
    return;
  }
  void answered(asked, (answer, handedOver) => parentPort!.postMessage(answer, handedOver));
});
parentPort!.postMessage(READY);
