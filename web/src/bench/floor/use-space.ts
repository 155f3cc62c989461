import { useEffect, useState } from 'react';

/** Where Space does something of its own. */
const TAKES_SPACE = 'button, input, textarea, [role="slider"], [role="combobox"], [role="option"]';

/** True while Space is held: the view is dragged then, whatever lies on it. */
export function useSpace(): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    const down = (event: KeyboardEvent) => {
      if (event.code !== 'Space' || (event.target as HTMLElement).closest?.(TAKES_SPACE)) return;
      event.preventDefault();
      setHeld(true);
    };
    const up = (event: KeyboardEvent) => event.code === 'Space' && setHeld(false);
    const away = () => setHeld(false);
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', away);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', away);
    };
  }, []);
  return held;
}
