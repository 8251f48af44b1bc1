// Before all journeys: a server with the demo on a database of its own.
// @ts-expect-error plain script without types
import { startStage } from '../scripts/lib/stage.mjs';

export default async function setup() {
  const stage = await startStage({ memory: true });
  process.env.LASTMARK_URL = stage.url;
  return stage.stop;
}
