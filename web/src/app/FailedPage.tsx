// Shown in place of a page that failed: what failed, and that nothing typed is lost.
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link, useLocation, useRouteError } from 'react-router';
import { usePageTitle } from '../parts/usePageTitle.ts';

export function FailedPage() {
  usePageTitle('This page failed');
  const error = useRouteError();
  const { pathname } = useLocation();
  const message = error instanceof Error ? error.message : 'Something unexpected happened.';
  return (
    <Stack spacing={2} sx={{ p: 4, maxWidth: 640 }} role="alert">
      <Typography variant="h1">This page failed</Typography>
      <Typography>
        {pathname}: {message}
      </Typography>
      <Typography color="text.secondary">
        What you typed is kept in this browser. Readings the server accepted are safe.
      </Typography>
      <Stack direction="row" spacing={1}>
        <Button variant="contained" onClick={() => window.location.reload()}>
          Load it again
        </Button>
        <Button component={Link} to="/">
          Go to the shelf
        </Button>
      </Stack>
    </Stack>
  );
}

/** @param says what is not there */
export function NothingHere({ says }: { readonly says: string }) {
  usePageTitle('Nothing here');
  return (
    <Stack spacing={2} sx={{ p: 4 }}>
      <Typography variant="h1">Nothing here</Typography>
      <Typography role="status">{says}</Typography>
      <div>
        <Button variant="contained" component={Link} to="/">
          Go to the shelf
        </Button>
      </div>
    </Stack>
  );
}

export function MissingPage() {
  const { pathname } = useLocation();
  return <NothingHere says={`There is no page at ${pathname}.`} />;
}
