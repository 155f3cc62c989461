declare module 'gltf-validator' {
  /** A fault, 0 error, 1 warning, 2 information, 3 hint. */
  interface Message {
    code: string;
    message: string;
    severity: number;
    pointer?: string;
  }
  export function validateBytes(
    bytes: Uint8Array,
    options?: { uri?: string },
  ): Promise<{
    issues: { numErrors: number; numWarnings: number; messages: Message[] };
    info: Record<string, unknown>;
  }>;
}
