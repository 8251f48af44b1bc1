// What to measure next: works of a sheet by what they would settle for the bench time they take.
import type { ClaimResult } from '../claim/index.ts';
import type { ClaimState } from '../evidence/index.ts';
import type { ProfileClass } from '../instrument/index.ts';
import { mainsOf, type SheetStep, stepSeconds } from '../plan/index.ts';
import { type Claim, describePromise } from '../promise/index.ts';
import { type Instrument, mainsLabel, type Rig } from '../reading/index.ts';
import { UNSETTLED } from '../verdict/index.ts';
import { metersOf } from './meters.ts';
import { type Outlook, outlookFor, type Remedy, type Rules } from './outlook.ts';
import { stepsFor } from './settles.ts';

/** A promise a work is about. */
export interface Settling {
  readonly claimId: string;
  readonly says: string;
  readonly state: ClaimState;
  /** Probability that the work decides it, 0…1. */
  readonly chance: number;
  readonly remedy: Remedy | null;
}

/** Steps that belong together: all of them settle something, fewer of them nothing. */
export interface Work {
  /** Ids of its steps on the sheet. */
  readonly stepIds: readonly string[];
  readonly title: string;
  readonly settles: readonly Settling[];
  /** Promises it is likely to decide: the sum of the chances. */
  readonly expected: number;
  /** What it takes when everything before it in the list is done, s. */
  readonly seconds: number;
  /** Of that with somebody there, s. */
  readonly attended: number;
  readonly needs: readonly ProfileClass[];
}

export interface NextSteps {
  /** The best first. */
  readonly works: readonly Work[];
  /** Promises more time decides nothing of, with what would; and those the sheet has nothing for. */
  readonly stuck: readonly (Pick<Settling, 'claimId' | 'says' | 'state'> & { readonly why: string })[];
  /** Promises still open. */
  readonly open: number;
}

export interface NextSource {
  /** The whole sheet of a method. */
  readonly steps: readonly SheetStep[];
  readonly claims: readonly Claim[];
  readonly results: readonly ClaimResult[];
  readonly devices: readonly { readonly id: string; readonly name: string }[];
  readonly rig: Pick<Rig, 'name' | 'meters'>;
  /** Others a better meter may stand on. */
  readonly rigs: readonly Pick<Rig, 'name' | 'meters'>[];
  readonly instruments: readonly Instrument[];
  readonly rules: Rules & { readonly continuous: number };
}

/** Below this a work is not worth its time. */
const WORTH = 0.15;
/** Another supply is set, and what hangs on the old one settles, s. */
const SUPPLY_SECONDS = 20;
/** A good chance on another rig is worth saying. */
const GOOD = 0.8;

interface Candidate {
  readonly steps: readonly SheetStep[];
  readonly settles: Settling[];
}

/** A work by its longest step, and what it stands for. */
function titleOf(steps: readonly SheetStep[]): string {
  const [first, ...others] = [...steps].sort((a, b) => stepSeconds(b) - stepSeconds(a));
  if (!first) return '';
  const points = steps.filter(({ kind }) => kind === 'point');
  if (points.length >= 4 && points[0])
    return `Four points and their warm-up: ${points[0].title.split(',')[0]}${'mains' in points[0] ? ` at ${mainsLabel(points[0].mains)}` : ''}`;
  return others.length === 0 ? first.title : `${first.title}, and ${others.length} more`;
}

/** What the rig of a better chance is called; null where none is. */
function betterRig(
  { rigs, rig, instruments, rules }: NextSource,
  { promise }: Claim,
  result: ClaimResult,
  { chance }: Outlook,
): string | null {
  const found = rigs
    .filter(({ name }) => name !== rig.name)
    .map((one) => ({ name: one.name, chance: outlookFor(promise, result, metersOf(one, instruments), rules).chance }))
    .sort((a, b) => b.chance - a.chance)[0];
  return found && found.chance >= GOOD && found.chance > chance + 0.2 ? found.name : null;
}

function candidatesOf(source: NextSource): {
  readonly candidates: readonly Candidate[];
  readonly stuck: NextSteps['stuck'];
  readonly open: number;
} {
  const { claims, results, steps, devices, rules, rig, instruments } = source;
  const meters = metersOf(rig, instruments);
  const done = steps.filter(({ skip }) => skip === null);
  const byKey = new Map<string, Candidate>();
  const stuck: NextSteps['stuck'][number][] = [];
  let open = 0;
  for (const claim of claims) {
    const result = results.find(({ claimId }) => claimId === claim.id);
    if (!result || !UNSETTLED.includes(result.state)) continue;
    open += 1;
    const head = { claimId: claim.id, says: describePromise(claim.promise), state: result.state };
    const own = stepsFor(claim, { steps: done, continuous: rules.continuous, allowance: rules.allowance, devices });
    const outlook = outlookFor(claim.promise, result, meters, rules);
    const elsewhere = outlook.chance < GOOD ? betterRig(source, claim, result, outlook) : null;
    if (own.length === 0 || outlook.chance < WORTH) {
      const why =
        outlook.chance < WORTH && outlook.remedy
          ? `${outlook.remedy.says}${elsewhere ? ` The rig “${elsewhere}” has it.` : ''}`
          : 'The sheet has no step for it: choose another method, or add one by hand.';
      stuck.push({ ...head, why });
      continue;
    }
    const key = own.map(({ id }) => id).join(' ');
    const candidate = byKey.get(key) ?? { steps: own, settles: [] };
    const remedy =
      outlook.remedy && elsewhere
        ? { ...outlook.remedy, says: `${outlook.remedy.says} The rig “${elsewhere}” has it.` }
        : outlook.remedy;
    candidate.settles.push({ ...head, chance: outlook.chance, remedy });
    byKey.set(key, candidate);
  }
  return { candidates: [...byKey.values()], stuck, open };
}

/** Supplies some steps are taken at. */
const suppliesOf = (steps: Iterable<SheetStep>): ReadonlySet<string> => {
  const labels = new Set<string>();
  for (const step of steps) {
    const mains = mainsOf(step);
    if (mains) labels.add(mainsLabel(mains));
  }
  return labels;
};

/** What a work takes on top of what is chosen already: shared steps and supplies are paid once, s. */
function costOf(
  { steps }: Candidate,
  chosen: ReadonlySet<SheetStep>,
): { readonly seconds: number; readonly attended: number } {
  const fresh = steps.filter((step) => !chosen.has(step));
  const here = suppliesOf(chosen);
  const moved = [...suppliesOf(fresh)].filter((label) => !here.has(label)).length * SUPPLY_SECONDS;
  const seconds = fresh.reduce((sum, step) => sum + stepSeconds(step), 0) + moved;
  const byHand = fresh.some(({ by }) => by === 'keypad');
  const attended = fresh.reduce((sum, step) => sum + (step.attended ? stepSeconds(step) : 0), byHand ? moved : 0);
  return { seconds: Math.max(1, seconds), attended };
}

/**
 * Works in the order of what they settle for their time: at each place the one that decides most promises a second, what it shares with
 * those before it counted once. A work that makes another one free brings that along (greedy for a ratio; W. E. Smith, 1956, for the
 * order where nothing is shared).
 * @returns nothing where every promise is settled, or nothing was promised
 */
export function nextSteps(source: NextSource): NextSteps {
  const { candidates, stuck, open } = candidatesOf(source);
  const waiting = new Set(candidates);
  const chosen = new Set<SheetStep>();
  const works: Work[] = [];
  const sum = ({ settles }: Candidate) => settles.reduce((all, { chance }) => all + chance, 0);
  while (waiting.size > 0) {
    const ranked = [...waiting].map((candidate) => {
      const cost = costOf(candidate, chosen);
      // Whoever does it has done those of which nothing is left, too.
      const after = new Set([...chosen, ...candidate.steps]);
      const along = [...waiting].filter((other) => other !== candidate && other.steps.every((step) => after.has(step)));
      const worth = sum(candidate) + along.reduce((all, other) => all + sum(other), 0);
      return { candidate, along, cost, rate: worth / cost.seconds };
    });
    const best = ranked.reduce((a, b) => (b.rate > a.rate ? b : a));
    const settles = [best.candidate, ...best.along].flatMap((one) => one.settles);
    const steps = best.candidate.steps;
    works.push({
      stepIds: steps.map(({ id }) => id),
      title: titleOf(steps),
      settles,
      expected: settles.reduce((all, { chance }) => all + chance, 0),
      ...best.cost,
      needs: [...new Set(steps.flatMap(({ needs }) => needs))],
    });
    for (const step of steps) chosen.add(step);
    waiting.delete(best.candidate);
    for (const one of best.along) waiting.delete(one);
  }
  return { works, stuck, open };
}

/** Steps that prepare or follow others. */
const KEPT = ['rig', 'cool'] as const;

/**
 * A sheet of some works alone, in the order of the whole sheet: the rig proves itself before, it cools after what was long.
 * @returns steps with ids of their own, in order
 */
export function sheetOf(steps: readonly SheetStep[], stepIds: readonly string[]): readonly SheetStep[] {
  const wanted = new Set(stepIds);
  const kept = steps.filter((step, at) => {
    if (wanted.has(step.id)) return true;
    if (step.kind === 'rig') return at === 0;
    // It cools where something was loaded for long since the last time.
    if (step.kind !== 'cool') return false;
    const before = steps.slice(0, at);
    const since = before.slice(before.findLastIndex(({ kind }) => kind === 'cool') + 1);
    return since.some(
      (one) => wanted.has(one.id) && one.dwell >= 600 && !(KEPT as readonly string[]).includes(one.kind),
    );
  });
  return kept.map((step, at) => ({ ...step, id: `s${at + 1}` }));
}
