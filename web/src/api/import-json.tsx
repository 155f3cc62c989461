import Button from '@mui/material/Button';
import { useRef } from 'react';

/** A button that takes a JSON file from this machine. */
export function ImportJson({ label, onFile }: { label: string; onFile(file: File): void }) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button onClick={() => file.current?.click()}>Import JSON</Button>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label={label}
        onChange={(event) => {
          const [given] = event.target.files ?? [];
          event.target.value = '';
          if (given) onFile(given);
        }}
      />
    </>
  );
}
