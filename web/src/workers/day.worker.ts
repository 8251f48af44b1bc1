// Plans a bench day away from the screen.
import { type DayPlan, type DayProblem, planDay } from '@lastmark/core/schedule';
import { expose } from 'comlink';

const work = {
  plan: (problem: DayProblem, tries: number): DayPlan => planDay(problem, { tries }),
};

export type DayWork = typeof work;

expose(work);
