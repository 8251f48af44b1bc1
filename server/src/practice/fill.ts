// Fills the world of a drill: its bench, and its samples with what is printed on them.
import { type BenchFile, benchParts, CLASSES, type InstrumentClass } from '@lastmark/bench/sim';
import type { ClaimInput, DrillPartRow, ModelInput, UnitInput } from '@lastmark/contract';
import { BUILT_IN } from '@lastmark/core/instrument';
import { parseClaimLine } from '@lastmark/core/promise';
import { eq } from 'drizzle-orm';
import { createClaim } from '../claims/store.ts';
import type { Database } from '../db/database.ts';
import { instruments } from '../db/schema.ts';
import { createSimulatedInstrumentsAt } from '../demo/simulated.ts';
import { createSample } from '../samples/store.ts';

const MAKER = 'Quernstone';
const UNIT: UnitInput = {
  revision: '',
  serial: '',
  dateCode: '',
  obtained: 'bought',
  disclosure: '',
  notes: '',
};
const CABLE = {
  form: 'cable',
  ends: ['C plug', 'C plug'],
  braid: false,
  strainRelief: 'short',
  stiffness: null,
  pack: 1,
} as const;
const MODEL = {
  maker: MAKER,
  length: null,
  width: null,
  height: null,
  mass: null,
  withPlug: true,
  plugForm: 'fixed',
  plugEarthed: false,
  plugBlocksNeighbour: false,
  inputRating: '',
  marks: [],
  prices: [],
} as const satisfies Partial<ModelInput>;

/** What a label promises: that of a seeded charger is one Claims understands. */
const promisesOf = (label: readonly string[], ports: readonly string[]): ClaimInput[] =>
  label.flatMap((printed) => {
    const read = parseClaimLine(printed, ports);
    if (!('promises' in read)) throw new Error(`"${printed}" is no promise: ${read.reason}`);
    return read.promises.map((promise) => ({ promise, duration: { kind: 'unstated' as const }, printed }));
  });

async function addPart(
  db: Database,
  of: DrillPartRow['of'],
  name: string,
  claims: readonly ClaimInput[],
  model: Pick<ModelInput, 'kind' | 'ports'> & Partial<ModelInput>,
): Promise<DrillPartRow> {
  const sample = await createSample(db, {
    model: { ...MODEL, ...model, model: name, prices: [], marks: [] },
    unit: UNIT,
  });
  for (const claim of claims) await createClaim(db, sample.id, claim);
  return { id: sample.id, name, of, tag: sample.tag };
}

/** Fill an empty world. @returns its parts, the rig last */
export async function fillWorld(
  db: Database,
  file: BenchFile,
  portOf: (kind: InstrumentClass) => number,
): Promise<DrillPartRow[]> {
  await createSimulatedInstrumentsAt(db, portOf);
  const { chargers, cables } = benchParts(file);
  const parts: DrillPartRow[] = [];
  for (const { truth, label } of chargers) {
    const ports = truth.ports.map(({ label: port, connector }) => ({ label: port, connector, twin: null }));
    const claims = promisesOf(
      label,
      ports.map((port) => port.label),
    );
    parts.push(await addPart(db, 'charger', truth.name, claims, { kind: truth.kind, ports }));
  }
  for (const { truth, rating, length } of cables) {
    const printed = `${rating.amps} A ${rating.volts} V`;
    const claims = [
      { promise: { kind: 'cable-rating' as const, ...rating }, duration: { kind: 'unstated' as const }, printed },
    ];
    parts.push(
      await addPart(db, 'cable', truth.name, claims, { kind: 'cable', ports: [], cable: { ...CABLE, length } }),
    );
  }
  return [...parts, { id: 'rig', name: 'The rig', of: 'rig', tag: '' }];
}

/** Tell the instruments of a world where a bench that was started anew answers. */
export async function readdress(db: Database, portOf: (kind: InstrumentClass) => number): Promise<void> {
  for (const [index, { class: kind }] of BUILT_IN.entries()) {
    const own = CLASSES[index];
    if (own)
      await db
        .update(instruments)
        .set({ address: `127.0.0.1:${portOf(own)}` })
        .where(eq(instruments.class, kind));
  }
}
