// The full report of a six-port charger with fifty charts, and the packages of the whole demo.

const PORTS = ['C1', 'C2', 'C3', 'C4', 'A1', 'A2'];
const LOADS = [0.1, 0.25, 0.5, 0.75, 1];
const MAINS = [
  { kind: 'ac', volts: 115, hertz: 60 },
  { kind: 'ac', volts: 230, hertz: 50 },
];
/** Each loading gives two charts: efficiency and loss. */
const LOADINGS = 25;

const idOf = (count) => `01J${String(count).padStart(23, '0')}`;

async function send(url, path, body) {
  const answer = await fetch(`${url}/api${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return answer.json();
}

async function timed(label, url) {
  const began = performance.now();
  const answer = await fetch(url);
  const bytes = (await answer.arrayBuffer()).byteLength;
  if (!answer.ok) throw new Error(`${url}: ${answer.status}`);
  const seconds = (performance.now() - began) / 1000;
  console.log(`  ${label}: ${seconds.toFixed(2)} s, ${(bytes / 1e6).toFixed(2)} MB`);
  return { seconds, bytes };
}

/** A charger of six ports with a loading of its own for each of its levels. */
async function sixPorts(url) {
  const [rig] = (await (await fetch(`${url}/api/rigs`)).json()).items;
  const { model } = (await (await fetch(`${url}/api/samples?q=M6-1177`)).json()).items[0];
  const found = (await (await fetch(`${url}/api/samples?q=M6-1177`)).json()).items[0];
  const six = await (await fetch(`${url}/api/samples/${found.id}`)).json();
  const sample = await send(url, '/samples', {
    model: {
      ...six.model,
      model: `${model?.model ?? 'Six'} measured`,
      ports: PORTS.map((label) => ({ label, connector: label[0], twin: null })),
    },
    unit: six.unit,
  });
  let count = 0;
  for (let at = 0; at < LOADINGS; at += 1) {
    const port = PORTS[at % PORTS.length];
    const volts = [5, 9, 15, 20, 12][Math.floor(at / PORTS.length)] ?? 20;
    const amps = 1 + (at % 3);
    const setup = await send(url, `/samples/${sample.id}/setups`, {
      name: `${port} ${volts} V ${amps} A`,
      purpose: 'efficiency',
      outputs: [{ port, volts, amps }],
      evidence: 'load',
      rigId: rig.id,
      nameplateClass: null,
    });
    const points = MAINS.flatMap((mains) =>
      LOADS.map((load) => {
        const watts = volts * amps * load;
        const reading = (quantity, place, typed) => ({
          id: idOf(++count),
          quantity,
          place,
          port: place === 'mains' ? null : port,
          typed,
        });
        return {
          id: idOf(++count),
          setupId: setup.id,
          mains,
          load,
          attached: 'nothing',
          rigId: rig.id,
          takenAt: '2026-03-02T09:00:00Z',
          readings: [
            reading('power', 'mains', `${(watts / 0.9 + 0.2).toFixed(3)} W`),
            reading('voltage', 'port', volts.toFixed(3)),
            reading('current', 'port', (amps * load).toFixed(4)),
          ],
        };
      }),
    );
    await send(url, `/samples/${sample.id}/readings`, { points });
  }
  return sample.id;
}

/** @param stage with the demo */
export async function measureReports({ url }) {
  console.log('Reports and packages');
  const id = await sixPorts(url);
  const base = `${url}/api/samples/${id}`;
  const html = await (await fetch(`${base}/report.html?language=en`)).text();
  console.log(`  charts in it: ${(html.match(/<figure>/g) ?? []).length}`);
  await timed('PDF of 6 ports', `${base}/report.pdf?language=en`);
  await timed('again', `${base}/report.pdf?language=en`);
  await timed('as one HTML file', `${base}/report.html?language=en`);
  await timed('pictures with CSV', `${base}/pictures.zip?language=en`);
  const { items } = await (await fetch(`${url}/api/samples?size=100`)).json();
  const began = performance.now();
  let bytes = 0;
  for (const one of items) {
    const answer = await fetch(`${url}/api/samples/${one.id}/package.zip`);
    bytes += (await answer.arrayBuffer()).byteLength;
  }
  console.log(
    `  packages of ${items.length} samples: ${((performance.now() - began) / 1000).toFixed(2)} s, ${(bytes / 1e6).toFixed(1)} MB\n`,
  );
}
