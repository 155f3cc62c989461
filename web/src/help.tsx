import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { later } from './later.tsx';
import { useHelp } from './use-help.ts';

const HelpDialog = later(async () => (await import('./help-dialog.tsx')).HelpDialog);

/** Keys and words, which `?` shows and hides. */
export function Help() {
  const { open } = useHelp();
  const [wasOpen, setWasOpen] = useState(open);
  if (open && !wasOpen) setWasOpen(true);
  useHotkeys('?', () => useHelp.setState({ open: !useHelp.getState().open }), { useKey: true });
  return wasOpen && <HelpDialog open={open} onClose={() => useHelp.setState({ open: false })} />;
}
