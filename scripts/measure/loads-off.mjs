// Loads off: from the key in the browser to the command on the wire, while readings are being asked for.
import { chromium } from '@playwright/test';
import { CHROMIUM } from '../lib/chromium.mjs';
import { startSimulatedBench } from '../lib/simulated-bench.mjs';
import { quantile, spread } from './figures.mjs';

const TURNS = 20;

export async function measureLoadsOff(url) {
  const bench = await startSimulatedBench();
  const browser = await chromium.launch(CHROMIUM);
  try {
    const post = async (path, data) => {
      const answer = await fetch(`${url}/api${path}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(data),
      });
      return answer.json();
    };
    const load = await post('/instruments', {
      name: 'Measured load',
      class: 'DC load',
      firmware: '',
      calibrationDue: null,
      address: `127.0.0.1:${bench.ports['dc-load']}`,
      profileId: 'built-in-dc-load',
      sees: null,
      specs: {},
    });
    const page = await browser.newPage();
    await page.goto(`${url}/rules`);
    await page.getByRole('button', { name: 'Loads off' }).waitFor();
    const times = [];
    for (let turn = 0; turn < TURNS; turn += 1) {
      const busy = Array.from({ length: 10 }, () => post(`/instruments/${load.id}/commands`, { command: 'FETC?' }));
      const pressed = await page.evaluate(() => {
        const at = Date.now();
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
        return at;
      });
      await Promise.all(busy);
      await page.waitForTimeout(150);
      const { items } = await (await fetch(`${url}/api/instruments/${load.id}/traffic`)).json();
      const sent = items.findLast(({ direction, text }) => direction === 'out' && text === 'INP:ALL OFF');
      if (sent) times.push(sent.at - pressed);
    }
    console.log(`loads off, ${times.length} presses, 10 readings asked for at each`);
    console.log(
      `  key to wire             p50 ${quantile(times, 0.5)} ms, p95 ${quantile(times, 0.95)} ms (${spread(times)}), goal ≤ 200 ms`,
    );
  } finally {
    await browser.close();
    await bench.stop();
  }
}
