/** Has the browser take every file of a crate, each by itself. */
export function downloadAll(id: string, names: readonly string[]): void {
  for (const name of names) {
    const link = document.createElement('a');
    link.href = `/api/crates/${id}/files/${encodeURIComponent(name)}`;
    link.download = name;
    link.click();
  }
}
