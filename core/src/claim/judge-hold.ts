// For how long: a promised power is also held against how long it was held.

import { type Claim, type Promised, sharePorts } from '../promise/index.ts';
import { formatPlain } from '../quantity/index.ts';
import type { HoldRun } from '../run/index.ts';
import type { Judged, Known } from './known.ts';

const drawn = ({ port, volts, amps, others }: HoldRun) => [{ port, volts, amps }, ...others];
const wattsOf = (run: HoldRun): number => drawn(run).reduce((total, { volts, amps }) => total + volts * amps, 0);

/** Whether a hold drew what a promise is about. */
function drew(run: HoldRun, promise: Promised, allowance: number): boolean {
  const enough = (had: number, wanted: number) => had >= wanted * (1 - allowance) - 1e-9;
  switch (promise.kind) {
    case 'port-line':
      return (
        run.port === promise.port &&
        run.others.length === 0 &&
        Math.abs(run.volts - promise.volts) <= 0.01 * promise.volts &&
        enough(run.amps, promise.amps)
      );
    case 'total':
      return enough(wattsOf(run), promise.watts);
    case 'combination':
      return (
        drawn(run).length === promise.shares.flatMap(sharePorts).length &&
        promise.shares.every((share) =>
          enough(
            drawn(run)
              .filter(({ port }) => sharePorts(share).includes(port))
              .reduce((total, { volts, amps }) => total + volts * amps, 0),
            share.watts,
          ),
        )
      );
    default:
      return false;
  }
}

const time = (seconds: number): string => formatPlain(seconds, 'duration', seconds < 120 ? 's' : 'min');

/**
 * What the holds add to a judged promise. Continuous is what the profile says counts as continuous; a peak counts for
 * its own duration. A promise that says nothing of time is not refuted by a hold that ended: it is told.
 */
export function withHold(claim: Claim, judged: Judged, known: Known): Judged {
  const { duration, promise } = claim;
  const holds = known.holds.filter((run) => drew(run, promise, known.allowance));
  const longest = holds.reduce<HoldRun | null>((best, run) => (best && best.held >= run.held ? best : run), null);
  const note = (text: string): Judged => ({ ...judged, notes: [...judged.notes, text] });
  const needed = duration.kind === 'continuous' ? known.continuous : duration.kind === 'peak' ? duration.seconds : null;
  if (needed === null) {
    if (!longest) return judged;
    return note(
      longest.end === 'held to the end'
        ? `Held for ${time(longest.held)}.`
        : `It ${longest.end} after ${time(longest.held)}; for how long is not stated.`,
    );
  }
  const promised = duration.kind === 'peak' ? time(needed) : `continuously (${time(needed)} by your rules)`;
  if (!longest) {
    return ['proven', 'borderline'].includes(judged.state)
      ? note(`How long it holds is not tested; promised ${promised}.`)
      : judged;
  }
  if (longest.held >= needed - 1) return note(`Held for ${time(longest.held)}; promised ${promised}.`);
  if (longest.end === 'held to the end') return note(`Held for ${time(longest.held)} so far; promised ${promised}.`);
  const left = longest.after === null ? '' : ` to ${formatPlain(longest.after, 'power')}`;
  return {
    ...judged,
    state: 'short',
    sentence: `${formatPlain(wattsOf(longest), 'power')} ${longest.end}${left} after ${time(longest.held)}; promised ${promised}.`,
    notes: judged.sentence ? [...judged.notes, judged.sentence] : judged.notes,
  };
}
