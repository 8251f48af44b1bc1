// Files attached to a sample, a claim or a reading: thumbnails, adding by drop or dialog, removing.
import type { AttachmentInfo } from '@lastmark/contract/types';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type DragEvent, lazy, Suspense, useRef, useState } from 'react';
import { sizeWords, uploadAttachments } from '../api/attachments.ts';
import { api } from '../api/client.ts';
import { takeBackImport } from '../api/imports.ts';
import { attachmentsQuery, queryClient } from '../api/queries.ts';
import { apiUrl } from '../api/world.ts';
import { useSample } from '../state/sample.tsx';
import { Question } from './Ask.tsx';
import { CaptionDialog } from './CaptionDialog.tsx';
import { FileButton } from './FileButton.tsx';

const ACCEPTED = '.png,.jpg,.jpeg,.webp,.pdf,.csv,.tsv,.txt,.log,.json';

interface Props {
  readonly owner: AttachmentInfo['owner'];
  readonly ownerId: string;
  /** Show nothing but a small link while there is no file. */
  readonly compact?: boolean;
}

interface TileProps {
  readonly file: AttachmentInfo;
  readonly onRemove: () => void;
  readonly onDescribe: () => void;
  readonly onTakeBack: () => void;
}

function Tile({ file, onRemove, onDescribe, onTakeBack }: TileProps) {
  const href = apiUrl(`/attachments/${file.id}`);
  return (
    <Box component="li" data-file={file.id} sx={{ width: 104 }}>
      <Box
        component="a"
        href={href}
        target="_blank"
        rel="noreferrer"
        sx={{ display: 'block', color: 'inherit', fontSize: 12 }}
      >
        <Box
          sx={{
            height: 76,
            border: 1,
            borderColor: 'divider',
            borderRadius: 1,
            display: 'grid',
            placeItems: 'center',
            overflow: 'hidden',
            bgcolor: 'ground',
            fontWeight: 600,
          }}
        >
          {file.hasThumbnail ? (
            <img src={`${href}/thumbnail`} alt="" loading="lazy" style={{ maxWidth: '100%', maxHeight: '100%' }} />
          ) : (
            (file.name.split('.').at(-1) ?? '').toUpperCase()
          )}
        </Box>
        <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }} title={file.name}>
          {file.caption || file.name}
        </Box>
      </Box>
      <Box
        sx={{
          display: 'flex',
          justifyContent: 'space-between',
          alignItems: 'center',
          fontSize: 12,
          color: 'text.secondary',
        }}
      >
        {sizeWords(file.size)}
        <Button
          size="small"
          sx={{ minWidth: 0, p: '0 4px', fontSize: 12 }}
          onClick={onRemove}
          aria-label={`Remove ${file.name}`}
        >
          Remove
        </Button>
      </Box>
      {file.type.startsWith('image/') && (
        <Button
          size="small"
          sx={{ minWidth: 0, p: 0, fontSize: 12, textAlign: 'left' }}
          onClick={onDescribe}
          aria-label={`Caption of ${file.name}`}
        >
          {file.inReport ? 'In the report' : 'Caption'}
        </Button>
      )}
      {file.points > 0 && (
        <Button
          size="small"
          sx={{ minWidth: 0, p: 0, fontSize: 12, textAlign: 'left' }}
          onClick={onTakeBack}
          aria-label={`Take back the ${file.points} points of ${file.name}`}
        >
          Take {file.points} {file.points === 1 ? 'point' : 'points'} back
        </Button>
      )}
    </Box>
  );
}

/** Larger than all else here, and only for a phone. */
const Code = lazy(async () => ({ default: (await import('qrcode.react')).QRCodeSVG }));

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

const CODE = 116;

/** How a phone on the same network sends its photos. */
function ByPhone({ tag }: { readonly tag: string }) {
  const { hostname, origin } = window.location;
  if (LOOPBACK.includes(hostname))
    return (
      <Typography variant="body2" color="text.secondary" sx={{ mt: 0.75 }}>
        With a phone: start Lastmark with <code>HOST</code> so that this network reaches it, then open{' '}
        <code>/photo/{tag}</code> at its address there.
      </Typography>
    );
  const address = `${origin}/photo/${tag}`;
  return (
    <Box sx={{ mt: 0.75, display: 'flex', gap: 1.5, alignItems: 'center' }}>
      <Box sx={{ width: CODE, height: CODE, flex: 'none' }}>
        <Suspense fallback={null}>
          <Code value={address} size={CODE} marginSize={2} title="The address as a code for the camera of a phone" />
        </Suspense>
      </Box>
      <Typography variant="body2" color="text.secondary">
        With a phone on this network: point its camera at the code, or open <code>{address}</code>
      </Typography>
    </Box>
  );
}

export function Attachments({ owner, ownerId, compact = false }: Props) {
  const { dossier } = useSample();
  const sampleId = dossier.sample.id;
  const [over, setOver] = useState(false);
  const [described, setDescribed] = useState<AttachmentInfo | null>(null);
  const [leaving, setLeaving] = useState<AttachmentInfo | null>(null);
  const list = useRef<HTMLUListElement>(null);
  const query = useQuery(attachmentsQuery(sampleId));
  const refresh = () => queryClient.invalidateQueries({ queryKey: ['attachments', sampleId] });
  const add = useMutation({
    mutationFn: (files: readonly File[]) => uploadAttachments(owner, ownerId, files),
    onSettled: refresh,
  });
  const remove = useMutation({
    mutationFn: (file: AttachmentInfo) => api(`/attachments/${file.id}`, { method: 'DELETE' }),
    onSettled: refresh,
  });
  const takeBack = useMutation({ mutationFn: (fileId: string) => takeBackImport(sampleId, fileId) });
  const files = (query.data?.items ?? []).filter((file) => file.owner === owner && file.ownerId === ownerId);
  const failed = add.error ?? remove.error ?? takeBack.error ?? query.error;
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    add.mutate([...event.dataTransfer.files]);
  };
  const small = compact && files.length === 0;
  return (
    <Box
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      onPaste={(event) => {
        const pasted = [...event.clipboardData.files];
        if (pasted.length > 0) add.mutate(pasted);
      }}
      sx={{
        outline: over ? '2px dashed' : undefined,
        outlineColor: 'primary.main',
        borderRadius: 1,
        display: small ? 'inline-block' : 'block',
      }}
    >
      {files.length > 0 && (
        <Box
          component="ul"
          ref={list}
          aria-label="Files"
          sx={{ listStyle: 'none', m: 0, mb: 1, p: 0, display: 'flex', flexWrap: 'wrap', gap: 1.5 }}
        >
          {files.map((file) => (
            <Tile
              key={file.id}
              file={file}
              onRemove={() => setLeaving(file)}
              onDescribe={() => setDescribed(file)}
              onTakeBack={() => takeBack.mutate(file.id)}
            />
          ))}
        </Box>
      )}
      {leaving && (
        <Box sx={{ mb: 1, maxWidth: 420 }}>
          <Question
            key={leaving.id}
            label={`Remove ${leaving.name}`}
            says={`${leaving.name} cannot be brought back.`}
            yes="Remove it"
            no="Keep it"
            color="error"
            size="small"
            onYes={() => remove.mutate(leaving)}
            onClose={() => {
              list.current?.querySelector<HTMLElement>(`[data-file="${leaving.id}"] button`)?.focus();
              setLeaving(null);
            }}
          />
        </Box>
      )}
      <FileButton
        label={`Attach files to this ${owner}`}
        accept={ACCEPTED}
        multiple
        onFiles={(chosen) => add.mutate(chosen)}
        button={{
          size: 'small',
          variant: compact ? 'text' : 'outlined',
          disabled: add.isPending,
          ...(compact ? { sx: { p: 0, minWidth: 0, fontSize: 12 } } : {}),
        }}
      >
        {add.isPending ? 'Attaching…' : compact ? 'Attach' : 'Attach photos or files'}
      </FileButton>
      {owner === 'sample' && !compact && <ByPhone tag={dossier.sample.tag} />}
      {described && <CaptionDialog file={described} onClose={() => setDescribed(null)} onKept={refresh} />}
      {failed && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {failed.message}
        </Alert>
      )}
    </Box>
  );
}
