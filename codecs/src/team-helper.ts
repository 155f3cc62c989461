import { parentPort } from 'node:worker_threads';
import { type Asked, answered, READY } from '@zesty-tile/core';

// A helper thread of a team: does what it is asked until it is ended.
parentPort!.on('message', (asked: Asked) => {
  void answered(asked, (answer, handedOver) => parentPort!.postMessage(answer, handedOver));
});
parentPort!.postMessage(READY);
