import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { later } from './later.tsx';
import { useShortcuts } from './use-shortcuts.ts';

const ShortcutsDialog = later(async () => (await import('./shortcuts-dialog.tsx')).ShortcutsDialog);

/** The list of all keys, which `?` shows and hides. */
export function Shortcuts() {
  const { open } = useShortcuts();
  const [wasOpen, setWasOpen] = useState(open);
  if (open && !wasOpen) setWasOpen(true);
  useHotkeys('?', () => useShortcuts.setState({ open: !useShortcuts.getState().open }), { useKey: true });
  return wasOpen && <ShortcutsDialog open={open} onClose={() => useShortcuts.setState({ open: false })} />;
}
