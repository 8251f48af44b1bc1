// A button that asks for files; the input itself stays out of sight and out of the tab order.
import Button, { type ButtonProps } from '@mui/material/Button';
import { type ReactNode, useRef } from 'react';

interface Props {
  readonly label: string;
  readonly accept: string;
  readonly multiple?: boolean;
  readonly onFiles: (files: readonly File[]) => void;
  readonly button?: ButtonProps;
  readonly children: ReactNode;
}

export function FileButton({ label, accept, multiple = false, onFiles, button, children }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...button} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        hidden
        type="file"
        aria-label={label}
        accept={accept}
        multiple={multiple}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length > 0) onFiles(files);
        }}
      />
    </>
  );
}
