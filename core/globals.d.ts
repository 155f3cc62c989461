/**
 * What core uses of the platform beside the language: only what browsers, workers and servers all have. It is compiled
 * without the types of any of them.
 */
declare const performance: { now(): number };
declare function setTimeout(run: () => void, ms: number): unknown;
/** On servers alone: asked for before it is used. */
declare const setImmediate: undefined | ((run: () => void) => void);
declare function atob(text: string): string;
declare function btoa(bytes: string): string;

declare class MessageChannel {
  port1: MessagePort;
  port2: MessagePort;
}
interface MessagePort {
  onmessage: (() => void) | null;
  postMessage(message: unknown): void;
  close(): void;
}

interface AbortSignal {
  readonly aborted: boolean;
}

declare class TextEncoder {
  encode(text: string): Uint8Array;
}

declare namespace WebAssembly {
  class Module {
    constructor(bytes: Uint8Array);
  }
  class Instance {
    constructor(module: Module, imports: object);
    readonly exports: object;
  }
  class Memory {
    constructor(size: { initial: number });
    readonly buffer: ArrayBuffer;
    grow(pages: number): number;
  }
}
