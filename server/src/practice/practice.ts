// Drills: begun, looked at, judged, ended. One is under way at a time, in a world of its own.
import { randomInt } from 'node:crypto';
import { drawDrill } from '@lastmark/bench/sim';
import type { DrillInput, DrillNow, DrillPartRow, DrillRow, DrillState, VerdictInput } from '@lastmark/contract';
import { drillFault, drillLevel, effortOf, judgeDrill } from '@lastmark/core/drill';
import { and, desc, eq } from 'drizzle-orm';
import type { RequestHandler } from 'express';
import { newId } from '../db/ids.ts';
import type { DrawnDrill } from '../db/schema/practice.ts';
import { drills } from '../db/schema.ts';
import { isApi } from '../http/paths.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { budgetOf, goodPlanOf } from './good-plan.ts';
import { whatWasDone } from './tried.ts';
import { dropWorld, World, type WorldParts, worldName, worldsIn } from './world.ts';

const MOST_LISTED = 200;
const MOST_SEED = 1_000_000_000;

type Row = typeof drills.$inferSelect;

const rowOf = ({ id, person, levelId, seed, state, startedAt, endedAt, result }: Row): DrillRow => ({
  id,
  person,
  levelId,
  seed,
  state,
  startedAt: startedAt.toISOString(),
  endedAt: endedAt?.toISOString() ?? null,
  result,
});

/** What hides in each part, in the order they were drawn. */
const faultsIn =
  ({ chargers, cables, rig }: DrawnDrill, parts: readonly DrillPartRow[]) =>
  (part: DrillPartRow): readonly string[] =>
    part.of === 'rig' ? rig : ([...chargers, ...cables][parts.findIndex(({ id }) => id === part.id)]?.faults ?? []);

export class Practice {
  readonly #parts: WorldParts;
  #world: World | null = null;
  /** Opening and closing, one after the other. */
  #turn: Promise<unknown> = Promise.resolve();

  constructor(parts: WorldParts) {
    this.#parts = parts;
  }

  /** Do something alone: a world that opens twice would have two benches. */
  #alone<T>(work: () => Promise<T>): Promise<T> {
    const next = this.#turn.then(work, work);
    this.#turn = next.catch(() => undefined);
    return next;
  }

  async #row(id: string): Promise<Row> {
    const [row] = await this.#parts.db.select().from(drills).where(eq(drills.id, id));
    if (!row) throw notFound('drill');
    return row;
  }

  async #underWay(): Promise<Row | null> {
    const [row] = await this.#parts.db.select().from(drills).where(eq(drills.state, 'under way')).limit(1);
    return row ?? null;
  }

  /** The world of a drill; opened again where the server was started anew meanwhile. Null where there is none any more. */
  async #worldOf(row: Row): Promise<World | null> {
    if (this.#world?.drillId === row.id) return this.#world;
    if (row.state !== 'under way') return null;
    return this.#alone(async () => {
      if (this.#world?.drillId === row.id) return this.#world;
      await this.#shut();
      const { world, made } = await World.open(this.#parts, row.id, row.drawn);
      this.#world = world;
      // What was in it is lost with its database; the drill begins anew in the same state.
      if (made) await this.#parts.db.update(drills).set({ parts: made }).where(eq(drills.id, row.id));
      return world;
    });
  }

  async #shut(): Promise<void> {
    const world = this.#world;
    this.#world = null;
    await world?.close();
  }

  async list(): Promise<DrillRow[]> {
    const rows = await this.#parts.db.select().from(drills).orderBy(desc(drills.id)).limit(MOST_LISTED);
    return rows.map(rowOf);
  }

  async now(): Promise<DrillNow> {
    const row = await this.#underWay();
    return { drill: row ? await this.#state(row) : null };
  }

  get = async (id: string): Promise<DrillState> => this.#state(await this.#row(id));

  async #state(row: Row): Promise<DrillState> {
    const world = await this.#worldOf(row);
    const { parts, drawn, stated, budget, state, result } = world ? await this.#row(row.id) : row;
    const over = state === 'stated';
    // What is looked at after the verdict is no part of it.
    const used =
      result?.used ??
      (world ? effortOf((await whatWasDone(world.db, parts, () => [])).parts) : { steps: 0, seconds: 0 });
    const hides = faultsIn(drawn, parts);
    return {
      ...rowOf(row),
      parts: [...parts],
      open: world !== null,
      budget,
      used,
      onBench: world?.onBench ?? null,
      // A bench that is gone for a moment shows nothing.
      display: world?.onBench ? await world.hand.display().catch(() => null) : null,
      stated: over ? stated : null,
      truth: over ? parts.map((part) => ({ partId: part.id, faults: [...hides(part)] })) : null,
    };
  }

  /** Begin a drill. @throws 409 while another is under way */
  async start({ person, levelId, seed }: DrillInput): Promise<DrillState> {
    const level = drillLevel(levelId);
    if (!level) throw refused('levelId', 'There is no such level.');
    const id = await this.#alone(async () => {
      const other = await this.#underWay();
      if (other)
        throw conflict(
          `A drill of ${other.person} is under way. State its verdict, or leave it, before another begins.`,
        );
      await this.#shut();
      for (const name of await worldsIn(this.#parts.db, this.#parts.databaseUrl)) await dropWorld(this.#parts.db, name);
      const drillId = newId();
      const number = seed ?? randomInt(MOST_SEED);
      const drawn = drawDrill(level, number);
      const { world, made } = await World.open(this.#parts, drillId, drawn);
      this.#world = world;
      const parts = made ?? [];
      const good = await goodPlanOf(world.db, parts, level, drawn);
      await this.#parts.db.insert(drills).values({
        id: drillId,
        person,
        levelId,
        seed: number,
        state: 'under way',
        drawn,
        budget: budgetOf(good),
        good,
        stated: null,
        result: null,
        parts,
        startedAt: new Date(),
        endedAt: null,
      });
      return drillId;
    });
    return this.get(id);
  }

  async #open(id: string): Promise<World> {
    const row = await this.#row(id);
    if (row.state !== 'under way') throw conflict('This drill is over.');
    const world = await this.#worldOf(row);
    if (!world) throw conflict('This drill is over.');
    return world;
  }

  async place(id: string, sampleId: string): Promise<DrillState> {
    const world = await this.#open(id);
    const { parts } = await this.#row(id);
    if (!parts.some((part) => part.id === sampleId && part.of !== 'rig'))
      throw refused('sampleId', 'This sample is not of the drill.');
    await world.place(sampleId);
    return this.get(id);
  }

  async restartMeters(id: string): Promise<DrillState> {
    await (await this.#open(id)).hand.restartMeters();
    return this.get(id);
  }

  /** State what is wrong with what. The world stays to be looked at until another drill begins. */
  async state(id: string, { parts: stated }: VerdictInput): Promise<DrillState> {
    const world = await this.#open(id);
    const { parts, drawn, good, budget } = await this.#row(id);
    for (const [at, { partId, faults }] of stated.entries()) {
      const part = parts.find((own) => own.id === partId);
      if (!part) throw refused(`parts[${at}].partId`, 'This is no part of the drill.');
      if (stated.findIndex((own) => own.partId === partId) !== at)
        throw refused(`parts[${at}].partId`, `${part.name} is there twice.`);
      for (const [index, { id: faultId }] of faults.entries()) {
        if (drillFault(faultId)?.of !== part.of)
          throw refused(`parts[${at}].faults[${index}].id`, `${part.name} cannot have this fault.`);
        if (faults.findIndex((own) => own.id === faultId) !== index)
          throw refused(`parts[${at}].faults[${index}].id`, 'A fault is there twice.');
      }
    }
    const done = await whatWasDone(world.db, parts, faultsIn(drawn, parts));
    const result = judgeDrill(done.parts, stated, { good, budget, runs: done.runs });
    const [{ affectedRows }] = await this.#parts.db
      .update(drills)
      .set({ state: 'stated', stated: [...stated], result, endedAt: new Date() })
      .where(and(eq(drills.id, id), eq(drills.state, 'under way')));
    if (affectedRows === 0) throw conflict('This drill is over.');
    return this.get(id);
  }

  /** End a drill without a verdict; its world goes. */
  async leave(id: string): Promise<void> {
    const row = await this.#row(id);
    await this.#alone(async () => {
      if (row.state === 'under way')
        await this.#parts.db.update(drills).set({ state: 'left', endedAt: new Date() }).where(eq(drills.id, id));
      if (this.#world?.drillId === id) await this.#shut();
      await dropWorld(this.#parts.db, worldName(this.#parts.databaseUrl, id));
    });
  }

  /** Answers below /practice/api with the world that is open. */
  readonly handle: RequestHandler = (request, response, next) => {
    if (!isApi(request.path)) return next();
    void (async () => {
      const row = this.#world ? null : await this.#underWay();
      const world = this.#world ?? (row ? await this.#worldOf(row) : null);
      if (!world) throw conflict('No drill is under way. Begin one at Drills.');
      world.router(request, response, next);
    })().catch(next);
  };

  /** The world is closed; a drill under way goes on when the server is there again. */
  close(): Promise<void> {
    return this.#alone(() => this.#shut());
  }
}
