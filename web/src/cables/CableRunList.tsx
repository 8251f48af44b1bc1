// What was done of one kind with a cable.
import type { StoredCableRun } from '@lastmark/contract/types';
import { describeCableRun } from '@lastmark/core/cable';
import { currentRuns } from '@lastmark/core/run';
import { KeptList } from '../parts/KeptList.tsx';
import { useSample } from '../state/sample.tsx';
import { useKeptCableRuns } from './useCableRuns.ts';

interface Props {
  readonly title: string;
  readonly kind: StoredCableRun['kind'];
  readonly onCorrect: (run: StoredCableRun) => void;
}

export function CableRunList({ title, kind, onCorrect }: Props) {
  const { cableRuns } = useSample().dossier;
  const kept = useKeptCableRuns(kind);
  return (
    <KeptList
      title={title}
      items={currentRuns(cableRuns).filter((run) => run.kind === kind)}
      kept={kept}
      describe={describeCableRun}
      beside={(run) => (run.bends > 0 && run.kind !== 'bend' ? `, after ${run.bends} bends` : '')}
      onCorrect={onCorrect}
    />
  );
}
