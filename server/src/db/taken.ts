/** Whether an insert failed because its number is taken already. */
export function isTaken(error: unknown): boolean {
  const seen = [error, (error as { cause?: unknown })?.cause];
  return seen.some((one) => one instanceof Error && /UNIQUE constraint failed/.test(one.message));
}

/** How often an insert is tried with the next number. */
const TRIES = 20;

/** Inserts a row that counts up, again while another request takes its number first. */
export async function inserted<T>(insert: () => Promise<T>): Promise<T> {
  for (let k = 1; ; k++) {
    try {
      return await insert();
    } catch (error) {
      if (!isTaken(error) || k >= TRIES) throw error;
    }
  }
}
