// A thermal image beside the soaks: read from the camera's matrix, its hottest spot, and kept with the sample.
import type { AttachmentInfo } from '@lastmark/contract/types';
import { hottestSpot, readThermalImage, type ThermalImage, warmColour } from '@lastmark/core/heat';
import { fixed } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { api } from '../../api/client.ts';
import { attachmentsQuery, queryClient } from '../../api/queries.ts';
import { apiUrl } from '../../api/world.ts';
import { FileButton } from '../../parts/FileButton.tsx';
import { fileText } from '../../parts/fileText.ts';
import { Panel } from '../../parts/Panel.tsx';
import { useNotify } from '../../state/notices.tsx';
import { useSample } from '../../state/sample.tsx';

const PREFIX = 'thermal ';
const WIDTH = 360;

interface Open {
  readonly name: string;
  readonly text: string;
  readonly image: ThermalImage;
  readonly kept: boolean;
}

/** One hue from light to dark; the hottest spot ringed. */
function Picture({ image, name }: { readonly image: ThermalImage; readonly name: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const spot = hottestSpot(image);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !spot) return;
    const data = context.createImageData(image.width, image.height);
    const span = Math.max(0.1, spot.shown - spot.low);
    image.values.forEach((value, at) => {
      const [red, green, blue] = Number.isNaN(value) ? [255, 255, 255] : warmColour((value - spot.low) / span);
      data.data.set([red, green, blue, 255], 4 * at);
    });
    context.putImageData(data, 0, 0);
  }, [image, spot]);
  const height = Math.round((WIDTH * image.height) / image.width);
  return (
    <Box
      sx={{
        position: 'relative',
        width: WIDTH,
        maxWidth: '100%',
        aspectRatio: `${image.width} / ${image.height}`,
        maxHeight: height,
      }}
    >
      <canvas
        ref={canvas}
        width={image.width}
        height={image.height}
        role="img"
        aria-label={`${name}: from ${fixed(spot?.low ?? 0, 1)} to ${fixed(spot?.shown ?? 0, 1)} °C`}
        style={{ width: '100%', height: '100%', imageRendering: 'pixelated', display: 'block' }}
      />
      {spot && (
        <Box
          aria-hidden
          sx={{
            position: 'absolute',
            left: `${(100 * (spot.x + 0.5)) / image.width}%`,
            top: `${(100 * (spot.y + 0.5)) / image.height}%`,
            width: 16,
            height: 16,
            m: '-8px 0 0 -8px',
            border: '2px solid #fff',
            outline: '1px solid #000',
            borderRadius: '50%',
          }}
        />
      )}
    </Box>
  );
}

const number = (text: string): number => Number(text.replace(',', '.'));

export function ThermalPanel() {
  const { dossier } = useSample();
  const notify = useNotify();
  const sampleId = dossier.sample.id;
  const attached = useQuery(attachmentsQuery(sampleId));
  const [open, setOpen] = useState<Open | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [emissivity, setEmissivity] = useState('1');
  const [reflected, setReflected] = useState('23');
  const kept = (attached.data?.items ?? []).filter(({ name }) => name.startsWith(PREFIX));
  const show = (name: string, text: string, isKept: boolean) => {
    const image = readThermalImage(text);
    setProblem('reason' in image ? `${name}: ${image.reason}` : null);
    setOpen('reason' in image ? null : { name, text, image, kept: isKept });
  };
  const fetchKept = async ({ id, name }: AttachmentInfo) =>
    show(name, await fileText(await (await fetch(apiUrl(`/attachments/${id}`))).blob()), true);
  const keep = async ({ name, text }: Open) => {
    const called = `${PREFIX}${name.replace(/\.[a-z]+$/i, '')}.csv`;
    await api(`/attachments?${new URLSearchParams({ owner: 'sample', ownerId: sampleId, name: called })}`, {
      method: 'POST',
      body: new Blob([text]),
    });
    await queryClient.invalidateQueries({ queryKey: attachmentsQuery(sampleId).queryKey });
    setOpen((now) => now && { ...now, kept: true });
    notify('Kept with the sample.');
  };
  const spot = open ? hottestSpot(open.image, number(emissivity), number(reflected)) : null;
  return (
    <Panel>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h3" sx={{ flex: 1 }}>
          Thermal image
        </Typography>
        {kept.map((file) => (
          <Button key={file.id} size="small" onClick={() => void fetchKept(file)}>
            {file.name.slice(PREFIX.length)}
          </Button>
        ))}
        <FileButton
          label="Matrix of a thermal image"
          accept=".csv,.tsv,.txt"
          onFiles={([file]) => file && void fileText(file).then((text) => show(file.name, text, false))}
          button={{ size: 'small', variant: 'outlined' }}
        >
          Choose its matrix
        </FileButton>
      </Box>
      {problem && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {problem}
        </Alert>
      )}
      {open && spot ? (
        <Box sx={{ display: 'flex', gap: 2, mt: 1, flexWrap: 'wrap' }}>
          <Picture image={open.image} name={open.name} />
          <Box sx={{ display: 'grid', gap: 1.5, alignContent: 'start', width: 240 }}>
            <Typography sx={{ fontSize: 20, fontWeight: 600 }}>
              {spot.celsius === null ? 'Not to be trusted' : `${fixed(spot.celsius, 1)} °C`}
            </Typography>
            <Typography variant="body2">
              Hottest spot, shown as {fixed(spot.shown, 1)} °C; coolest {fixed(spot.low, 1)} °C.
              {spot.celsius === null && ' Bare metal mirrors its surroundings: put matt tape on it.'}
            </Typography>
            <TextField
              label="Emissivity, camera set to 1"
              value={emissivity}
              onChange={(event) => setEmissivity(event.target.value)}
              size="small"
            />
            <TextField
              label="Mirrored surroundings, °C"
              value={reflected}
              onChange={(event) => setReflected(event.target.value)}
              size="small"
            />
            <Button
              variant="outlined"
              size="small"
              disabled={open.kept}
              onClick={() => void keep(open).catch(({ message }: Error) => setProblem(message))}
            >
              {open.kept ? 'Kept with the sample' : 'Keep with the sample'}
            </Button>
          </Box>
        </Box>
      ) : (
        <Typography variant="body2" color="text.secondary">
          A matrix of temperatures as the camera exports it: one line a row. Leave the emissivity at 1 where the camera
          was set to the surface’s own.
        </Typography>
      )}
    </Panel>
  );
}
