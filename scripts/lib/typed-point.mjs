// A reading as the keypad sends it, and samples of the demo to type into.
import { ulid } from 'ulid';

/** One value read at the wall. */
export const typedPoint = (setup, typed) => ({
  id: ulid(),
  setupId: setup.id,
  mains: { kind: 'ac', volts: 230, hertz: 50 },
  load: 0.33,
  attached: 'nothing',
  rigId: setup.rigId,
  takenAt: new Date().toISOString(),
  readings: [{ id: ulid(), quantity: 'power', place: 'mains', port: null, typed, really: true }],
});

/** Samples with a loading. @param ask given a path below /api, answers with its body */
export async function placesToType(ask) {
  const { items } = await ask('/samples?size=50');
  const found = [];
  for (const { id } of items) {
    const { setups } = await ask(`/samples/${id}/dossier`);
    const setup = setups.find(({ purpose }) => purpose === 'efficiency');
    if (setup) found.push({ id, setup });
  }
  return found;
}
