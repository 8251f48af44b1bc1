// A second record to stand beside the first: of this sample, or of another.
import type { SampleDossier } from '@lastmark/contract/types';
import { type RippleCell, rippleStation } from '@lastmark/core/ripple';
import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { dossierQuery } from '../../api/queries.ts';
import type { Shown } from '../../captures/TraceView.tsx';
import { Choice } from '../../parts/fields.tsx';
import { type Chosen, SampleField } from '../../parts/SampleField.tsx';
import { toJudge } from '../../state/sample.tsx';

const ANOTHER = 'another sample';
const FIELD = { sx: { width: 280 } } as const;

/** Records there is a trace of. */
export const recordedOf = (cells: readonly RippleCell[]): readonly RippleCell[] =>
  cells.filter(({ figures }) => figures.samples > 0);

const shownOf = ({ captureId, conditions }: RippleCell, before = ''): Shown => ({
  id: captureId,
  label: `${before}${conditions}`,
});

/** Records of another sample, named with it. */
function Foreign({ sample, onChoose }: { readonly sample: Chosen; readonly onChoose: (one: Shown | null) => void }) {
  const { data } = useQuery(dossierQuery(sample.id));
  const [value, setValue] = useState('');
  const recorded = data ? recordedOf(rippleStation.conclude(toJudge(data as SampleDossier), {}).cells) : [];
  if (data && recorded.length === 0) return <Box sx={{ alignSelf: 'center' }}>No record of it yet.</Box>;
  return (
    <Choice
      label="Its record"
      value={value}
      options={recorded.map((cell) => ({ value: cell.captureId, label: cell.conditions }))}
      more={FIELD}
      onChange={(id) => {
        const cell = recorded.find(({ captureId }) => captureId === id);
        setValue(id);
        onChoose(cell ? shownOf(cell, `${sample.name}: `) : null);
      }}
    />
  );
}

interface Props {
  /** Records of this sample that may stand beside the one shown. */
  readonly cells: readonly RippleCell[];
  readonly beside: Shown | null;
  readonly onChoose: (one: Shown | null) => void;
}

export function Beside({ cells, beside, onChoose }: Props) {
  const [foreign, setForeign] = useState(false);
  const [sample, setSample] = useState<Chosen | null>(null);
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.5 }}>
      <Choice
        label="Beside it"
        value={foreign ? ANOTHER : (beside?.id ?? '')}
        options={[
          { value: '', label: 'nothing' },
          ...cells.map((cell) => ({ value: cell.captureId, label: cell.conditions })),
          { value: ANOTHER, label: 'a record of another sample' },
        ]}
        more={FIELD}
        onChange={(value) => {
          const cell = cells.find(({ captureId }) => captureId === value);
          setForeign(value === ANOTHER);
          setSample(null);
          onChoose(cell ? shownOf(cell) : null);
        }}
      />
      {foreign && (
        <Box sx={{ width: 280 }}>
          <SampleField
            chosen={sample}
            onChoose={(one) => {
              setSample(one);
              onChoose(null);
            }}
          />
        </Box>
      )}
      {foreign && sample && <Foreign key={sample.id} sample={sample} onChoose={onChoose} />}
    </Box>
  );
}
