// Rules: the choices of method, names of signalling, and the limit sets with where they come from.
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { profileQuery } from '../api/queries.ts';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { LimitSets } from './LimitSets.tsx';
import { ProfileForm } from './ProfileForm.tsx';
import { SignalModes } from './SignalModes.tsx';

export function RulesPage() {
  const profile = useQuery(profileQuery);
  return (
    <Page
      title="Rules"
      actions={
        <Button component={Link} to="/methods" variant="outlined">
          Methods
        </Button>
      }
    >
      <Typography variant="h2" sx={{ mb: 1 }}>
        Method
      </Typography>
      <QueryGate query={profile} what="the method">
        {(found) => <ProfileForm key={found.version} profile={found} />}
      </QueryGate>
      {profile.data && <SignalModes profile={profile.data} />}
      {profile.data && <LimitSets profile={profile.data} />}
    </Page>
  );
}
