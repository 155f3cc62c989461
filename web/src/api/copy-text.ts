/** Puts text on the clipboard. @throws Error in plain words where the browser does not let a page do that. */
export async function copyText(text: string): Promise<void> {
  const { clipboard } = navigator as { clipboard?: Clipboard };
  if (!clipboard)
    throw new Error(
      `A browser lets a page copy only over https, or on the machine that serves it. Copy it from here: ${text}`,
    );
  await clipboard.writeText(text);
}
