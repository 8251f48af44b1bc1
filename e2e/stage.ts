// Before all journeys: a server with the demo on a database of its own.
// @ts-expect-error plain script without types
import { needBuild } from '../scripts/lib/build.mjs';
// @ts-expect-error plain script without types
import { startStage } from '../scripts/lib/stage.mjs';

export default async function setup() {
  // What is looked at is what stands here now.
  needBuild();
  const stage = await startStage({ memory: true });
  process.env.LASTMARK_URL = stage.url;
  return stage.stop;
}
