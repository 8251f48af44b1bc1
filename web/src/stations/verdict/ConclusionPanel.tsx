// The conclusion in words: each sentence with what stands behind it, to be put in order, worded, left out, or added to.
import { describePromise } from '@lastmark/core/claim';
import {
  agreed,
  type ConclusionLine,
  LANGUAGE_NAMES,
  LANGUAGES,
  type Language,
  type StandingLine,
  sayLine,
  waiting,
} from '@lastmark/core/conclusion';
import { STATIONS_ABOUT } from '@lastmark/core/station';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { Choice } from '../../parts/fields.tsx';
import { QueryGate } from '../../parts/QueryGate.tsx';
import { useNotify } from '../../state/notices.tsx';
import { useSample } from '../../state/sample.tsx';
import { useSettings } from '../../state/settings.tsx';
import { useConclusion } from './useConclusion.ts';
import { type Worded, WordingDialog } from './WordingDialog.tsx';

/** What a figure was and is, where it changed. */
function Changed({ one, language }: { readonly one: StandingLine; readonly language: Language }) {
  const { line, state, changes, draft } = one;
  if (state === 'gone')
    return <Box sx={{ color: 'warning.main', fontWeight: 600 }}>What it stood on is not there any more.</Box>;
  if (state !== 'changed' || line.kind === 'own' || !draft) return null;
  const short = changes.filter(({ was, is }) => (was ?? is ?? '').length < 60);
  return (
    <Box sx={{ color: 'warning.main', fontWeight: 600 }}>
      {draft.sentence === line.sentence && short.length > 0
        ? short.map(({ name, was, is }) => `${name} was ${was ?? 'not there'}, is now ${is ?? 'not there'}`).join('; ')
        : `It says now: ${sayLine({ ...line, text: {}, sentence: draft.sentence }, language, draft.figures)}`}
    </Box>
  );
}

/** Claims and station behind a sentence. */
function Behind({ one }: { readonly one: StandingLine }) {
  const { dossier } = useSample();
  const { draft } = one;
  if (!draft) return null;
  const station = STATIONS_ABOUT.find(({ id }) => id === draft.station);
  const claims = dossier.claims.filter(({ id }) => draft.claimIds.includes(id));
  return (
    <Box component="details" sx={{ fontSize: 13, color: 'text.secondary', minWidth: 0 }}>
      <Box component="summary" sx={{ cursor: 'pointer' }}>
        What stands behind it
      </Box>
      {claims.length > 0 && <Box>Claims: {claims.map(({ promise }) => describePromise(promise)).join('; ')}.</Box>}
      <Box>
        {draft.pointIds.length > 0 && `${draft.pointIds.length} readings or runs. `}
        {station && (
          <>
            To be looked into <Link to={`/samples/${dossier.sample.id}/${station.id}`}>at {station.title}</Link>.
          </>
        )}
        {draft.pointIds.length === 0 && !station && 'Counted from all claims.'}
      </Box>
    </Box>
  );
}

interface LineProps {
  readonly one: StandingLine;
  readonly at: number;
  readonly last: boolean;
  readonly language: Language;
  readonly onMove: (by: -1 | 1) => void;
  readonly onWord: () => void;
  readonly onChange: (line: ConclusionLine | null) => void;
}

function LineRow({ one, at, last, language, onMove, onWord, onChange }: LineProps) {
  const { line, state } = one;
  const hidden = line.kind === 'sentence' && line.hidden;
  const words = sayLine(line, language);
  const named = words.slice(0, 60);
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) auto',
        gap: 1,
        px: 1.5,
        py: 0.75,
        borderBottom: 1,
        borderColor: 'divider',
        ...(state === 'changed' || state === 'gone'
          ? { boxShadow: (t) => `inset 4px 0 ${t.palette.warning.main}` }
          : {}),
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Box lang={language} sx={hidden ? { color: 'text.secondary', textDecoration: 'line-through' } : {}}>
          {words}
          {line.kind === 'own' && (
            <Box
              component="span"
              sx={{ fontSize: 12, ml: 1, px: 0.75, border: 1, borderColor: 'soft', borderRadius: 1 }}
            >
              own words
            </Box>
          )}
        </Box>
        <Changed one={one} language={language} />
        <Behind one={one} />
      </Box>
      <Box sx={{ display: 'flex', gap: 0.25, alignItems: 'start', '& button': { minWidth: 0, px: 0.75 } }}>
        {(state === 'changed' || state === 'gone') && !hidden && (
          <Button
            size="small"
            variant="contained"
            aria-label={`${state === 'gone' ? 'Remove' : 'Yes'}: ${named}`}
            onClick={() => onChange(state === 'gone' ? null : agreed(one))}
          >
            {state === 'gone' ? 'Remove' : 'Yes'}
          </Button>
        )}
        <Button size="small" disabled={at === 0} aria-label={`Move up: ${named}`} onClick={() => onMove(-1)}>
          ↑
        </Button>
        <Button size="small" disabled={last} aria-label={`Move down: ${named}`} onClick={() => onMove(1)}>
          ↓
        </Button>
        <Button size="small" aria-label={`Word: ${named}`} onClick={onWord}>
          Word
        </Button>
        {line.kind === 'own' ? (
          <Button size="small" aria-label={`Remove: ${named}`} onClick={() => onChange(null)}>
            Remove
          </Button>
        ) : (
          <Button
            size="small"
            aria-label={`${hidden ? 'Take in' : 'Leave out'}: ${named}`}
            onClick={() => onChange({ ...line, hidden: !hidden })}
          >
            {hidden ? 'Take in' : 'Leave out'}
          </Button>
        )}
      </Box>
    </Box>
  );
}

export function ConclusionPanel() {
  const { lines, keep, query, language } = useConclusion();
  const { change } = useSettings();
  const notify = useNotify();
  const [worded, setWorded] = useState<Worded | null>(null);
  const all = lines.map(({ line }) => line);
  const wait = waiting(lines).length;
  const replace = (at: number, line: ConclusionLine | null) => {
    const before = all;
    keep.mutate(line ? all.map((one, index) => (index === at ? line : one)) : all.filter((_, index) => index !== at));
    if (line === null) notify('Removed.', () => keep.mutate(before));
  };
  const move = (at: number, by: -1 | 1) => {
    const next = [...all];
    const [one] = next.splice(at, 1);
    if (one) next.splice(at + by, 0, one);
    keep.mutate(next);
  };
  return (
    <Box component="section" aria-label="Conclusion" sx={{ mb: 3 }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 0.75 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Conclusion
        </Typography>
        <Choice
          label="Language"
          value={language}
          options={LANGUAGES.map((value) => ({ value, label: LANGUAGE_NAMES[value] }))}
          onChange={(reportLanguage) => change({ reportLanguage })}
          more={{ fullWidth: false, sx: { width: 130 } }}
        />
        <Button variant="outlined" sx={{ height: 40 }} onClick={() => setWorded({ at: null, line: null })}>
          Add own words
        </Button>
      </Box>
      {query.error && <QueryGate query={query} what="the conclusion" />}
      {wait > 0 && (
        <Alert severity="warning" icon={false} sx={{ mb: 0.75, py: 0 }}>
          {wait === 1 ? 'One sentence waits' : `${wait} sentences wait`} for a yes: the evidence changed since.
        </Alert>
      )}
      <Box
        component="ol"
        aria-label="Sentences"
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          border: 1,
          borderBottom: 0,
          borderColor: 'divider',
          bgcolor: 'background.paper',
        }}
      >
        {query.data &&
          lines.map((one, at) => (
            <LineRow
              key={one.line.id}
              one={one}
              at={at}
              last={at === lines.length - 1}
              language={language}
              onMove={(by) => move(at, by)}
              onWord={() => setWorded({ at, line: one.line })}
              onChange={(line) => replace(at, line)}
            />
          ))}
      </Box>
      {worded && (
        <WordingDialog
          worded={worded}
          language={language}
          onKeep={(line) =>
            keep.mutateAsync(
              worded.at === null ? [...all, line] : all.map((one, index) => (index === worded.at ? line : one)),
            )
          }
          onClose={() => setWorded(null)}
        />
      )}
    </Box>
  );
}
