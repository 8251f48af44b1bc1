// What stands in a report: which sections, and which other samples beside it.
import { LEAVABLE, type LeavableId } from '@lastmark/core/report';
import { STATIONS_ABOUT, stationsOf } from '@lastmark/core/station';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import type { Chosen } from '../parts/SampleField.tsx';
import { SamplesField } from '../parts/SampleField.tsx';

const NAMES: Readonly<Partial<Record<LeavableId, string>>> = { limits: 'Limit sets', photos: 'Chosen photos' };

/** Sections a report of these kinds of samples may leave out. */
const sectionsOf = (kinds: readonly string[]): readonly { readonly id: LeavableId; readonly name: string }[] => {
  const stations = kinds.flatMap((kind) => stationsOf(STATIONS_ABOUT, kind));
  return LEAVABLE.flatMap((id) => {
    const name = NAMES[id] ?? stations.find((one) => one.id === id)?.title;
    return name === undefined ? [] : [{ id, name }];
  });
};

interface Props {
  readonly kind: string;
  readonly leaves: readonly LeavableId[];
  readonly others: readonly Chosen[];
  /** The sample the report is of: it cannot stand beside itself. */
  readonly sampleId: string;
  readonly onChange: (part: { leaves?: readonly LeavableId[]; others?: readonly Chosen[] }) => void;
}

export function SectionChoice({ kind, leaves, others, sampleId, onChange }: Props) {
  const sections = sectionsOf([kind, ...others.map((one) => one.kind)]);
  return (
    <>
      <Box component="fieldset" sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
        <Typography component="legend" variant="body2" sx={{ fontWeight: 600, mb: 0.25 }}>
          Sections
        </Typography>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(148px, 1fr))' }}>
          {sections.map(({ id, name }) => (
            <FormControlLabel
              key={id}
              label={name}
              control={
                <Checkbox
                  size="small"
                  checked={!leaves.includes(id)}
                  onChange={(_event, stands) =>
                    onChange({ leaves: stands ? leaves.filter((one) => one !== id) : [...leaves, id] })
                  }
                />
              }
            />
          ))}
        </Box>
        <Typography variant="body2" color="text.secondary">
          Conclusion, promises and how it was measured always stand in it. What is left out is said.
        </Typography>
      </Box>
      <SamplesField
        label="Other samples in it"
        chosen={others}
        except={sampleId}
        onChoose={(chosen) => onChange({ others: chosen })}
      />
    </>
  );
}
