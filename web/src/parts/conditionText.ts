// What a run does by itself, while it is typed: texts in, conditions out, with what cannot be read said by name.
import { CONDITION_KINDS, type Condition, type ConditionKind, USUAL_CONDITIONS } from '@lastmark/core/plan';
import { formatPlain } from '@lastmark/core/quantity';
import { typedMinutes } from './fields.tsx';

export interface ConditionText {
  readonly on: readonly ConditionKind[];
  /** % */
  readonly within: string;
  readonly most: string;
  readonly longest: string;
  /** % */
  readonly share: string;
}

const percent = (part: number): string => String(Number((part * 100).toPrecision(4)));

/** Numbers of those that are off stand as they usually are. */
export function toConditionText(conditions: readonly Condition[]): ConditionText {
  const of = <Kind extends ConditionKind>(kind: Kind) =>
    (conditions.find((one) => one.kind === kind) ?? USUAL_CONDITIONS[kind]) as Condition & { readonly kind: Kind };
  return {
    on: CONDITION_KINDS.filter((kind) => conditions.some((one) => one.kind === kind)),
    within: percent(of('repeat').within),
    most: String(of('repeat').most),
    longest: formatPlain(of('unsettled').longest, 'duration', 'min'),
    share: percent(of('folded').share),
  };
}

const number = (text: string): number => (text.trim() === '' ? Number.NaN : Number(text.trim().replace(',', '.')));

/** @param problems what cannot be read is added here */
export function fromConditionText(text: ConditionText, problems: string[]): Condition[] {
  const share = (typed: string, what: string): number => {
    const part = number(typed.replace('%', '')) / 100;
    if (!(part > 0 && part < 1)) problems.push(`${what}: write per cent between 0 and 100.`);
    return part;
  };
  return CONDITION_KINDS.filter((kind) => text.on.includes(kind)).map((kind): Condition => {
    switch (kind) {
      case 'repeat': {
        const most = number(text.most);
        if (!(Number.isInteger(most) && most >= 2 && most <= 50))
          problems.push('Readings altogether: write a number from 2 to 50.');
        return { kind, within: share(text.within, 'U at most'), most };
      }
      case 'unsettled': {
        const longest = typedMinutes(text.longest) ?? Number.NaN;
        if (!(longest > 0 && longest <= 14_400)) problems.push('Going on: write a time up to 4 h, such as 30 min.');
        return { kind, longest };
      }
      case 'folded':
        return { kind, share: share(text.share, 'A port must give') };
      default:
        return { kind };
    }
  });
}
