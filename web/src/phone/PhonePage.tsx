// A page for a phone: photos of one sample go straight from its camera to the bench.
import type { AttachmentInfo, Page as Paged, SampleRow } from '@lastmark/contract/types';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useParams } from 'react-router';
import { uploadAttachments } from '../api/attachments.ts';
import { api } from '../api/client.ts';
import { apiUrl } from '../api/world.ts';
import { CaptionDialog } from '../parts/CaptionDialog.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { sampleName } from '../parts/sampleName.ts';
import { usePageTitle } from '../parts/usePageTitle.ts';

/** What was sent from this phone, the newest first, each to be captioned. */
function Sent({
  files,
  onDescribe,
}: {
  readonly files: readonly AttachmentInfo[];
  readonly onDescribe: (file: AttachmentInfo) => void;
}) {
  return (
    <Box component="ul" aria-label="Sent" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 1 }}>
      {files.map((file) => (
        <Box component="li" key={file.id} sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
          <img
            src={apiUrl(`/attachments/${file.id}/thumbnail`)}
            alt=""
            width={72}
            height={72}
            style={{ objectFit: 'cover' }}
          />
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Typography noWrap>{file.caption || file.name}</Typography>
            <Button onClick={() => onDescribe(file)} aria-label={`Caption of ${file.name}`}>
              Caption
            </Button>
          </Box>
        </Box>
      ))}
    </Box>
  );
}

function Camera({ sample }: { readonly sample: SampleRow }) {
  const input = useRef<HTMLInputElement>(null);
  const [sent, setSent] = useState<readonly AttachmentInfo[]>([]);
  const [described, setDescribed] = useState<AttachmentInfo | null>(null);
  const send = useMutation({
    mutationFn: (files: readonly File[]) =>
      uploadAttachments('sample', sample.id, files, (stored) => setSent((before) => [stored, ...before])),
  });
  const captioned = async () => {
    const { items } = await api<{ items: AttachmentInfo[] }>(`/attachments?sampleId=${sample.id}`);
    setSent((before) => before.map((one) => items.find(({ id }) => id === one.id) ?? one));
  };
  return (
    <>
      <Typography sx={{ fontSize: 18, fontWeight: 600 }}>{sampleName(sample)}</Typography>
      <Typography color="text.secondary">
        Photos go to the bench upright, and without the place they were taken at.
      </Typography>
      <Button
        variant="contained"
        disabled={send.isPending}
        onClick={() => input.current?.click()}
        sx={{ minHeight: 72, fontSize: 20 }}
      >
        {send.isPending ? 'Sending…' : 'Take a photo'}
      </Button>
      <input
        ref={input}
        hidden
        type="file"
        aria-label="Photo of the sample"
        accept="image/*"
        capture="environment"
        multiple
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length > 0) send.mutate(files);
        }}
      />
      {send.error && <Alert severity="error">{send.error.message} Take it again.</Alert>}
      <Sent files={sent} onDescribe={setDescribed} />
      {described && <CaptionDialog file={described} onClose={() => setDescribed(null)} onKept={captioned} />}
    </>
  );
}

export function PhonePage() {
  usePageTitle('Photos');
  const { tag = '' } = useParams();
  const query = useQuery({
    queryKey: ['samples', 'by tag', tag],
    queryFn: ({ signal }) => api<Paged<SampleRow>>(`/samples?size=20&q=${encodeURIComponent(tag)}`, { signal }),
  });
  return (
    <Box component="main" sx={{ maxWidth: 480, mx: 'auto', p: 2, display: 'grid', gap: 2 }}>
      <Typography variant="h1">Photos</Typography>
      <QueryGate query={query} what="the sample">
        {({ items }) => {
          const sample = items.find((one) => one.tag === tag.toUpperCase());
          return sample ? (
            <Camera sample={sample} />
          ) : (
            <Alert severity="warning">
              No sample has the tag {tag}. It stands on the label, and at Intake beside the model.
            </Alert>
          );
        }}
      </QueryGate>
    </Box>
  );
}
