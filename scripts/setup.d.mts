export const ROOT: string;
export function run(
  command: string,
  args: string[],
  options?: { mayFail?: boolean; env?: NodeJS.ProcessEnv },
): number;
export function ensureInstalled(): void;
export function ensureChromium(): string | null;
