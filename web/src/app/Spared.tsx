// A part of the frame that may fail without taking the frame, and with it Loads off, along.
import Typography from '@mui/material/Typography';
import { Component, type ReactNode } from 'react';

interface Props {
  /** What failed, for the sentence in its place. */
  readonly what: string;
  readonly children: ReactNode;
}

export class Spared extends Component<Props, { readonly failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <Typography role="alert" color="error" sx={{ px: 2, py: 1, fontSize: 13, fontWeight: 600 }}>
        ▼ {this.props.what} cannot be worked out.
      </Typography>
    );
  }
}
