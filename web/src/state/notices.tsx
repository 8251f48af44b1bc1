// Short messages at the bottom of the screen, with an undo where there is one.
import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';

interface Notice {
  readonly text: string;
  readonly undo?: () => void;
}

type Notify = (text: string, undo?: () => void) => void;

const Context = createContext<Notify | null>(null);
const SHOWN_MILLISECONDS = 8_000;

export function NoticesProvider({ children }: { readonly children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const notify = useMemo<Notify>(() => (text, undo) => setNotice(undo ? { text, undo } : { text }), []);
  const close = () => setNotice(null);
  const action = notice?.undo && (
    <Button
      color="inherit"
      size="small"
      onClick={() => {
        notice.undo?.();
        close();
      }}
    >
      Undo
    </Button>
  );
  return (
    <Context.Provider value={notify}>
      {children}
      <Snackbar
        open={notice !== null}
        message={notice?.text}
        action={action}
        autoHideDuration={SHOWN_MILLISECONDS}
        onClose={(_event, reason) => reason !== 'clickaway' && close()}
      />
    </Context.Provider>
  );
}

/** Show a message: what was done, and how to undo it. */
export function useNotify(): Notify {
  const notify = useContext(Context);
  if (!notify) throw new Error('Notices are missing above this part.');
  return notify;
}
