// A limit set the bench does not judge by, tried on what is shown without changing anything.
import type { LimitLine, LimitSet } from '@lastmark/core/limits';
import { chosenSets } from '@lastmark/core/verdict';
import { type ReactNode, useState } from 'react';
import { toJudge, useSample } from '../state/sample.tsx';
import { Choice } from './fields.tsx';

const NONE = 'none';

interface OtherSet {
  readonly lines: readonly LimitLine[];
  /** The field to choose it by; null where every set judges already. */
  readonly choice: ReactNode;
}

/** @param judge holds the results shown against some sets */
export function useOtherSet(judge: (sets: readonly LimitSet[]) => readonly LimitLine[]): OtherSet {
  const { dossier } = useSample();
  const [otherId, setOtherId] = useState(NONE);
  const chosen = chosenSets(toJudge(dossier)).map(({ id }) => id);
  const others = dossier.limitSets.filter(({ id }) => !chosen.includes(id));
  const other = others.filter(({ id }) => id === otherId);
  return {
    lines: other.length > 0 ? judge(other) : [],
    choice:
      others.length === 0 ? null : (
        <Choice
          label="Judge also under"
          value={otherId}
          options={[
            { value: NONE, label: 'no other set' },
            ...others.map(({ id, title }) => ({ value: id, label: title })),
          ]}
          onChange={setOtherId}
          more={{ sx: { width: 240 } }}
        />
      ),
  };
}
