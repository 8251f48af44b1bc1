import { chromium } from '@playwright/test';
import { CHROMIUM } from './lib/chromium.mjs';
import { startStage } from './lib/stage.mjs';

const stage = await startStage({ demo: true });
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('pageerror', (e) => console.log('ERR', e.message));
const base = stage.url ?? `http://127.0.0.1:${stage.port}`;
const rows = (await (await fetch(`${base}/api/samples?size=50`)).json()).items;
console.log(rows.map((r) => `${r.id} ${r.maker} ${r.model}`).join('\n'));
try {
  await (await import(process.argv[2])).default({ page, base, rows });
} finally {
  await browser.close();
  await stage.stop?.();
}
process.exit(0);
