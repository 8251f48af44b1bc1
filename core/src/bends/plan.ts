// How often a cable is to be bent, how, and when it is looked at.

/** To the maker's count and a margin more, or the same count for all. */
export const BEND_COUNTS = ['claim and a margin', 'the same for all'] as const;

/** The motion of a bender. */
export interface Bending {
  /** To each side, degrees. */
  readonly angle: number;
  /** m */
  readonly radius: number;
  /** N; null without a weight. */
  readonly tension: number | null;
  /** Bends a minute. */
  readonly rate: number;
}

/** How this bench bends. */
export interface BendMethod extends Bending {
  readonly to: (typeof BEND_COUNTS)[number];
  /** Part above the maker's count. */
  readonly margin: number;
  /** Where the same is done to all, or nothing is claimed. */
  readonly count: number;
  /** How often it is looked at on the way, the end included. */
  readonly looks: number;
}

export const USUAL_BENDS: BendMethod = {
  to: 'claim and a margin',
  margin: 0.25,
  count: 10_000,
  angle: 90,
  radius: 0.015,
  tension: 5,
  rate: 30,
  looks: 5,
};

export interface BendPlan {
  readonly count: number;
  /** Why so many, in words. */
  readonly why: string;
  /** Bends altogether at each look, rising. */
  readonly looks: readonly number[];
  /** s of the bender, looks left out. */
  readonly seconds: number;
}

/** Whole hundreds above a hundred, so that counts can be set on a counter. */
const tidy = (count: number): number => (count > 100 ? Math.ceil(count / 100) * 100 : Math.ceil(count));

/**
 * The plan for one cable, looked at as often as the method says, in even steps.
 * @param claimed bends the maker promises; null where nothing is
 * @example bendPlan(USUAL_BENDS, 10_000).count // 12500
 */
export function bendPlan(method: BendMethod, claimed: number | null): BendPlan {
  const byClaim = method.to === 'claim and a margin' && claimed !== null && claimed > 0;
  const count = Math.max(1, tidy(byClaim ? claimed * (1 + Math.max(0, method.margin)) : method.count));
  const many = Math.max(1, Math.floor(method.looks));
  const looks = Array.from({ length: many }, (_, at) => tidy((count * (at + 1)) / many));
  return {
    count,
    why: byClaim
      ? `${claimed} claimed and ${Math.round(method.margin * 100)} % more`
      : method.to === 'the same for all'
        ? 'the same for all'
        : 'nothing is claimed: the usual count',
    looks: [...new Set([...looks.slice(0, -1).filter((one) => one < count), count])],
    seconds: method.rate > 0 ? (count / method.rate) * 60 : Number.POSITIVE_INFINITY,
  };
}

/** The next look that is due; null when the plan is done. */
export const nextLook = ({ looks }: BendPlan, done: number): number | null => looks.find((one) => one > done) ?? null;
