import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog, { type DialogProps } from '@mui/material/Dialog';
import { type KeyboardEvent, useState } from 'react';

const isText = (target: EventTarget): target is HTMLInputElement | HTMLTextAreaElement =>
  target instanceof HTMLTextAreaElement ||
  (target instanceof HTMLInputElement &&
    !['checkbox', 'radio', 'range', 'file', 'color'].includes(target.type));

/** Escape leaves the field that is written in; the next one is the dialog’s. */
function leaveField(event: KeyboardEvent<HTMLElement>): void {
  if (event.key !== 'Escape' || !isText(event.target)) return;
  event.stopPropagation();
  event.target.blur();
  event.currentTarget.querySelector<HTMLElement>('.MuiDialog-container')?.focus();
}

type EditDialogProps = Omit<DialogProps, 'onClose' | 'open'> & {
  /** It is left without what was written in it. */
  onClose(): void;
  /** Something was changed that is no text: menus, cards that were moved. */
  isChanged?: boolean;
};

/** A dialog with fields: Escape leaves a field first, and what was written in it is not thrown away unasked. */
export function EditDialog({ onClose, isChanged = false, children, ...more }: EditDialogProps) {
  const [isWritten, setWritten] = useState(false);
  const [asks, setAsks] = useState(false);
  return (
    <Dialog
      open
      {...more}
      onInputCapture={() => setWritten(true)}
      onKeyDownCapture={leaveField}
      onClose={() => (isWritten || isChanged ? setAsks(true) : onClose())}
    >
      {asks && (
        <Alert
          severity="warning"
          role="alertdialog"
          aria-label="Discard your changes?"
          action={
            <>
              <Button
                autoFocus
                onClick={({ currentTarget }) => {
                  setAsks(false);
                  currentTarget.closest<HTMLElement>('.MuiDialog-container')?.focus();
                }}
              >
                Keep editing
              </Button>
              <Button sx={{ ml: 1 }} onClick={onClose}>
                Discard
              </Button>
            </>
          }
        >
          Discard your changes?
        </Alert>
      )}
      {children}
    </Dialog>
  );
}
