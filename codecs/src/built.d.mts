export function builtEntry(room: string): string;
export function isBuilt(room: string, below?: readonly string[]): boolean;
