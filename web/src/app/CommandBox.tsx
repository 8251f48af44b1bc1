// One box that finds samples, stations and actions.
import type { Page, SampleRow } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import InputBase from '@mui/material/InputBase';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { type KeyboardEvent, type RefObject, useState } from 'react';
import { useMatch, useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { dossierQuery, queryClient } from '../api/queries.ts';
import { useMe } from '../api/who.ts';
import { useSettings } from '../state/settings.tsx';
import { commandsOf, isMeant } from './commands.ts';

interface Command {
  readonly title: string;
  readonly hint: string;
  /** What else people call it. */
  readonly words?: string;
  readonly run: () => void;
}

const MOST_SAMPLES = 6;

interface Props {
  /** What was typed before it came. */
  readonly early: RefObject<string>;
  readonly onClose: () => void;
  readonly onKeys: () => void;
}

function useCommands(query: string, onKeys: () => void): Command[] {
  const navigate = useNavigate();
  const { light, change } = useSettings();
  const sampleId = useMatch('/samples/:sampleId/*')?.params.sampleId;
  const { data } = useQuery({
    queryKey: ['samples', 'found', query],
    enabled: query.trim() !== '',
    queryFn: ({ signal }) =>
      api<Page<SampleRow>>(`/samples?size=${MOST_SAMPLES}&q=${encodeURIComponent(query)}`, { signal }),
  });
  const onBench = sampleId && sampleId !== 'new' ? sampleId : null;
  const kind =
    onBench === null ? undefined : queryClient.getQueryData(dossierQuery(onBench).queryKey)?.sample.model.kind;
  const fixed: Command[] = commandsOf(onBench, kind, useMe() !== null).map(({ title, hint, to, words }) => ({
    title,
    hint,
    words,
    run: () => void navigate(to),
  }));
  fixed.push(
    {
      title: light === 'dim' ? 'Light theme' : 'Dim theme',
      hint: 'action',
      words: 'dark bright colours',
      run: () => change({ light: light === 'dim' ? 'light' : 'dim' }),
    },
    { title: 'Keys', hint: 'page', words: 'help shortcuts keyboard', run: onKeys },
  );
  const wanted = query.trim().toLowerCase();
  const samples = (data?.items ?? []).map((row) => ({
    title: `${row.maker} ${row.model}`,
    hint: [row.serial, row.tag].filter(Boolean).join(' · '),
    run: () => void navigate(`/samples/${row.id}/intake`),
  }));
  return [...fixed.filter((one) => isMeant(one, wanted)), ...(wanted ? samples : [])];
}

export function CommandBox({ early, onClose, onKeys }: Props) {
  const [query, setQuery] = useState(() => early.current);
  const [chosen, setChosen] = useState(0);
  const commands = useCommands(query, onKeys);
  const at = Math.min(chosen, Math.max(0, commands.length - 1));
  const run = (command: Command | undefined) => {
    if (!command) return;
    onClose();
    command.run();
  };
  const keys = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown') setChosen(Math.min(at + 1, commands.length - 1));
    else if (event.key === 'ArrowUp') setChosen(Math.max(at - 1, 0));
    else if (event.key === 'Enter') run(commands[at]);
    else return;
    event.preventDefault();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      maxWidth="sm"
      fullWidth
      aria-label="Command box"
      sx={{ '& .MuiDialog-container': { alignItems: 'flex-start', pt: 8 } }}
    >
      <InputBase
        autoFocus
        value={query}
        placeholder="Sample, station or action"
        onChange={(event) => {
          setQuery(event.target.value);
          setChosen(0);
        }}
        onKeyDown={keys}
        sx={{ px: 2, py: 1.5, fontSize: 18, borderBottom: 1, borderColor: 'divider' }}
        inputProps={{
          'aria-label': 'Sample, station or action',
          role: 'combobox',
          'aria-expanded': true,
          'aria-controls': 'commands',
          'aria-activedescendant': commands.length > 0 ? `command-${at}` : undefined,
        }}
      />
      <Box id="commands" role="listbox" aria-label="Found" sx={{ maxHeight: 380, overflow: 'auto', py: 0.5 }}>
        {commands.map((command, index) => (
          <Box
            key={`${command.title} ${command.hint}`}
            id={`command-${index}`}
            role="option"
            aria-selected={index === at}
            tabIndex={-1}
            onClick={() => run(command)}
            onKeyDown={keys}
            sx={{
              display: 'flex',
              justifyContent: 'space-between',
              gap: 2,
              px: 2,
              py: 0.9,
              cursor: 'pointer',
              bgcolor: index === at ? 'ground' : undefined,
              borderLeft: 4,
              borderColor: index === at ? 'primary.main' : 'transparent',
            }}
          >
            <span>{command.title}</span>
            <Typography component="span" color="text.secondary" variant="body2">
              {command.hint}
            </Typography>
          </Box>
        ))}
        {commands.length === 0 && (
          <Typography sx={{ px: 2, py: 1 }} color="text.secondary">
            Nothing found. Try part of a maker, model or serial.
          </Typography>
        )}
      </Box>
    </Dialog>
  );
}
