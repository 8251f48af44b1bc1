// Efficiency: choose a loading, type or drop the readings, see averages, limits and the curve.
import type { StoredSetup } from '@lastmark/contract/types';
import { LIGHT_LOAD } from '@lastmark/core/efficiency';
import { tooCoarse } from '@lastmark/core/procedure';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Typography from '@mui/material/Typography';
import { lazy, Suspense, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { FileButton } from '../../parts/FileButton.tsx';
import { Choice } from '../../parts/fields.tsx';
import { EMPTY_FIGURE, figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { Loading } from '../../parts/QueryGate.tsx';
import { useSample } from '../../state/sample.tsx';
import { Averages } from './Averages.tsx';
import { Budget } from './Budget.tsx';
import { LimitTable } from './LimitTable.tsx';
import { LoadGrid } from './LoadGrid.tsx';
import { SetupDialog } from './SetupDialog.tsx';
import { Wanted } from './Wanted.tsx';

const ImportDialog = lazy(async () => ({ default: (await import('./ImportDialog.tsx')).ImportDialog }));
const Surface = lazy(async () => ({ default: (await import('./Surface.tsx')).Surface }));
const MainsCurrent = lazy(async () => ({ default: (await import('./MainsCurrent.tsx')).MainsCurrent }));
const CarSupply = lazy(async () => ({ default: (await import('./CarSupply.tsx')).CarSupply }));
const Compare = lazy(async () => ({ default: (await import('./Compare.tsx')).Compare }));
const LoadChart = lazy(async () => ({ default: (await import('./LoadChart.tsx')).LoadChart }));

const VIEWS = [
  { id: 'points', title: 'Load points' },
  { id: 'surface', title: 'Surface' },
  { id: 'mains', title: 'Mains current' },
  { id: 'supply', title: 'Supply' },
  { id: 'compare', title: 'Compare' },
] as const;
type View = (typeof VIEWS)[number]['id'];

function NoLoading({ onAdd }: { readonly onAdd: () => void }) {
  const { dossier } = useSample();
  const hasPorts = dossier.sample.model.ports.length > 0;
  return (
    <Box sx={{ p: 4, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
      <Typography variant="h2">No loading yet</Typography>
      <Typography sx={{ my: 1.5 }} color="text.secondary">
        {hasPorts
          ? 'Say which port is loaded at which level; then its six load points wait to be typed or dropped as a file.'
          : 'Enter the ports at Intake first.'}
      </Typography>
      {hasPorts ? (
        <Button variant="contained" onClick={onAdd}>
          Add a loading
        </Button>
      ) : (
        <Button variant="contained" component={Link} to={`/samples/${dossier.sample.id}/intake`}>
          Go to Intake
        </Button>
      )}
    </Box>
  );
}

/** The picture and what it comes to side by side, the grid below; beside them where there is room. */
const MEASURED = {
  display: 'grid',
  columnGap: 2,
  rowGap: 2,
  mb: 2,
  gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 226px', xl: 'minmax(0, 5fr) minmax(0, 6fr)' },
  gridTemplateAreas: {
    xs: '"picture" "figures" "grid"',
    md: '"picture figures" "grid grid"',
    xl: '"picture grid" "figures grid"',
  },
  gridTemplateRows: { xl: 'auto 1fr' },
} as const;

function Measured({ setup, onFile }: { readonly setup: StoredSetup; readonly onFile: (file: File) => void }) {
  const { dossier, verdict } = useSample();
  const [over, setOver] = useState(false);
  const series = verdict.results.efficiency.series.find((one) => one.setup.id === setup.id);
  const limits = verdict.results.efficiency.limits.find(({ setupId }) => setupId === setup.id);
  if (!series) return null;
  const rig = dossier.rigs.find(({ id }) => id === setup.rigId);
  const meter = dossier.instruments.find(({ id }) => id === rig?.meters.mains);
  // The smallest input of the series decides whether the meter is fine enough; losses only make it larger.
  const coarse = meter ? tooCoarse(meter.name, meter.specs.power, series.nameplateWatts * LIGHT_LOAD) : null;
  return (
    <Box
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const [file] = event.dataTransfer.files;
        if (file) onFile(file);
      }}
      sx={{ outline: over ? '3px dashed' : undefined, outlineColor: 'primary.main', outlineOffset: 6, borderRadius: 1 }}
    >
      {coarse && (
        <Alert severity="info" sx={{ mb: 2 }}>
          {coarse}
        </Alert>
      )}
      <Box sx={MEASURED}>
        <Box sx={{ gridArea: 'picture', minWidth: 0 }}>
          <Later what="the chart" height={series.byMains.length > 0 ? figureHeight(300) : EMPTY_FIGURE}>
            <LoadChart series={series} limits={limits} />
          </Later>
        </Box>
        <Box sx={{ gridArea: 'figures', minWidth: 0 }}>
          <Averages series={series} limits={limits} />
        </Box>
        <Box sx={{ gridArea: 'grid', minWidth: 0 }}>
          <LoadGrid key={setup.id} setup={setup} />
        </Box>
      </Box>
      <Budget series={series} />
      {limits && <LimitTable limits={limits} setup={setup} />}
    </Box>
  );
}

export function EfficiencyPage() {
  const { dossier } = useSample();
  const setups = dossier.setups.filter(({ purpose }) => purpose === 'efficiency');
  const [params, setParams] = useSearchParams();
  const [dialog, setDialog] = useState<'new' | StoredSetup | null>(null);
  const [file, setFile] = useState<File | null>(null);
  const chosen = setups.find(({ id }) => id === params.get('loading')) ?? setups[0];
  const isCar = dossier.sample.model.kind === 'car';
  // A car charger has a supply that sags; a mains charger a current that is no sine.
  const views = VIEWS.filter(({ id }) => (isCar ? id !== 'mains' : id !== 'supply'));
  const view: View = views.find(({ id }) => id === params.get('view'))?.id ?? 'points';
  // Surface, mains current and comparison are about all loadings together.
  const ofLoading = view === 'points' || view === 'supply';
  const choose = (id: string) => setParams({ loading: id, ...(view === 'supply' ? { view } : {}) }, { replace: true });
  const loading = chosen && (
    <Choice
      label="Loading"
      value={chosen.id}
      options={setups.map(({ id, name }) => ({ value: id, label: name }))}
      onChange={choose}
      more={{ sx: { width: 260, display: 'block' }, fullWidth: true }}
    />
  );
  return (
    <>
      <PageHead title="Efficiency">
        {chosen && ofLoading && (
          <>
            <FileButton
              label="Meter file"
              accept=".csv,.tsv,.txt"
              onFiles={([first]) => setFile(first ?? null)}
              button={{ variant: 'contained' }}
            >
              Take in a meter file
            </FileButton>
            <Button variant="outlined" onClick={() => setDialog(chosen)}>
              Change the loading
            </Button>
          </>
        )}
        <Button variant="outlined" onClick={() => setDialog('new')} disabled={dossier.sample.model.ports.length === 0}>
          Add a loading
        </Button>
      </PageHead>
      {chosen && (
        <Tabs
          variant="scrollable"
          value={view}
          onChange={(_event, id: View) => setParams(id === 'points' ? {} : { view: id }, { replace: true })}
          aria-label="Views"
          sx={{ mb: 2, borderBottom: 1, borderColor: 'divider' }}
        >
          {views.map(({ id, title }) => (
            <Tab key={id} value={id} label={title} />
          ))}
        </Tabs>
      )}
      {!chosen && <NoLoading onAdd={() => setDialog('new')} />}
      {chosen && view === 'points' && (
        <>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, alignItems: 'start', mb: 1.5 }}>
            {loading}
            <Box sx={{ flex: '1 1 300px', pt: 1 }}>
              <Wanted onChoose={choose} />
            </Box>
          </Box>
          <Measured setup={chosen} onFile={setFile} />
        </>
      )}
      <Suspense fallback={<Loading what="the view" />}>
        {chosen && view === 'surface' && <Surface />}
        {chosen && view === 'mains' && <MainsCurrent />}
        {chosen && view === 'supply' && (
          <>
            {loading}
            <CarSupply setup={chosen} />
          </>
        )}
        {chosen && view === 'compare' && <Compare />}
      </Suspense>
      {dialog && (
        <SetupDialog
          setup={dialog === 'new' ? null : dialog}
          onSaved={(id) => {
            choose(id);
            setDialog(null);
          }}
          onClose={() => setDialog(null)}
        />
      )}
      {file && chosen && (
        <Suspense fallback={null}>
          <ImportDialog file={file} setup={chosen} onClose={() => setFile(null)} />
        </Suspense>
      )}
    </>
  );
}
