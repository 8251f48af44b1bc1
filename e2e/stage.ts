// Before all journeys: a server with the demo on a database of its own, and the demo's files for those that start another.
// @ts-expect-error plain script without types
import { needBuild } from '../scripts/lib/build.mjs';
// @ts-expect-error plain script without types
import { filledDemo } from '../scripts/lib/filled.mjs';
// @ts-expect-error plain script without types
import { startStage } from '../scripts/lib/stage.mjs';

export default async function setup() {
  // What is looked at is what stands here now.
  needBuild();
  const filled = (await filledDemo()) as string;
  const stage = await startStage({ memory: true, filled });
  process.env.LASTMARK_URL = stage.url;
  process.env.LASTMARK_FILLED = filled;
  return stage.stop;
}
