// A report as one HTML file that needs no network: charts with their data, tables to sort, each figure down to its readings.
import { createHash } from 'node:crypto';
import { dayIn, filled, inLanguage } from '@lastmark/core/conclusion';
import { escaped, faceSvg, type Picture, toSvg } from '@lastmark/core/picture';
import { quantityOf } from '@lastmark/core/quantity';
import { currentReadings, mainsLabel } from '@lastmark/core/reading';
import { pictureWords, REPORT_WORDS } from '@lastmark/core/report';
import { describeRun } from '@lastmark/core/run';
import type { Field, Table } from '@lastmark/core/table';
import { besideOf } from './beside.ts';
import { ownContent, type ReportContent } from './content.ts';
import { PAGE_SCRIPT } from './page-script.ts';
import { partsOf, type ReportParts } from './parts.ts';
import { claimRows, deviationsOf, factRows, instrumentRows, limitRows, recordRows } from './rows.ts';

const STYLE = `:root{color-scheme:light}body{font:16px/1.45 system-ui,sans-serif;color:#16211d;background:#fbfcfa;margin:0 auto;max-width:1080px;padding:24px}
h1{margin:0;font-size:30px}h1.next{margin-top:64px}h2{margin:32px 0 8px;font-size:21px;border-bottom:1px solid #bcc8c1}h3{margin:16px 0 4px;font-size:16px}
.soft{color:#4a5952}.loud{color:#a1261d;font-weight:700}.own{border:1px solid #4a5952;border-radius:4px;padding:0 5px;font-size:12px}
table{border-collapse:collapse;width:100%;margin:8px 0;font-size:14px}th,td{text-align:left;padding:4px 8px;border-bottom:1px solid #bcc8c1;vertical-align:top}
th button{all:unset;cursor:pointer;font-weight:700}th button:focus-visible{outline:3px solid #0b5a54}th[aria-sort=ascending] button:after{content:" \\2191"}th[aria-sort=descending] button:after{content:" \\2193"}
.wide{overflow-x:auto}td .wide{max-width:440px}a{color:#0b5a54}svg{max-width:100%;height:auto}figure{margin:12px 0}figcaption{font-size:14px}summary{cursor:pointer}details{font-size:14px}nav li{display:inline;margin-right:14px}nav ul{padding:0}
dl{display:grid;grid-template-columns:max-content 1fr;gap:2px 16px}dt{color:#4a5952}dd{margin:0}code{font-size:18px;font-weight:700}
svg[data-across]{cursor:crosshair;touch-action:pan-y}svg[data-across]:focus-visible{outline:3px solid #0b5a54}.into{display:flex;gap:8px;align-items:center;font-size:14px}.into button{font:inherit;min-height:28px;padding:0 10px;border:1px solid #4a5952;border-radius:4px;background:#fff;color:inherit}.into button:disabled{color:#4a5952;border-color:#bcc8c1}.into output{color:#4a5952}
@media print{details,nav,.into{display:none}}`;

const SCRIPT_HASH = createHash('sha256').update(PAGE_SCRIPT).digest('base64');

const heads = (names: readonly string[]): string =>
  `<thead><tr>${names.map((name) => `<th scope="col"><button type="button">${escaped(name)}</button></th>`).join('')}</tr></thead>`;

const cell = (field: Field | undefined): string =>
  `<td>${escaped(String((typeof field === 'number' ? Number(field.toPrecision(9)) : field) ?? ''))}</td>`;

/** Data of a picture; long ones are told in their head, and the rest stands in the CSV. */
const MOST_ROWS = 400;

function dataTable(table: Table): string {
  const [first = [], ...rows] = table;
  const shown = rows.slice(0, MOST_ROWS);
  return `<div class="wide"><table>${heads(first.map(String))}<tbody>${shown
    .map((row) => `<tr>${row.map(cell).join('')}</tr>`)
    .join(
      '',
    )}</tbody></table></div>${rows.length > shown.length ? `<p class="soft">+ ${rows.length - shown.length}</p>` : ''}`;
}

function figure(picture: Picture, data: string, say: (text: string) => string): string {
  return `<figure><h3>${escaped(say(picture.title))}</h3>${toSvg(picture, { width: 900, font: 'system-ui, sans-serif', words: say, lookInto: true, ...(picture.kind === 'plot' ? { height: 320 } : null) })}<figcaption>${escaped(say(picture.caption))}</figcaption><details><summary>${escaped(data)}</summary>${dataTable(picture.table)}</details></figure>`;
}

/** Raw readings and runs behind a claim. */
function behind({ dossier }: ReportContent, sources: readonly string[], { words }: ReportParts): string {
  const points = dossier.points.filter(({ id }) => sources.includes(id));
  const runs = dossier.runs.filter(({ id }) => sources.includes(id));
  const nameOf = (id: string | null) => dossier.instruments.find((one) => one.id === id)?.name ?? '';
  const rows = points.flatMap((point) =>
    currentReadings(point.readings).map((reading): Field[] => [
      reading.takenAt.slice(0, 19).replace('T', ' '),
      point.mains ? mainsLabel(point.mains) : '',
      reading.quantity,
      reading.port ?? reading.place,
      reading.value,
      quantityOf(reading.quantity).si,
      reading.u,
      reading.typed,
      nameOf(reading.instrumentId),
    ]),
  );
  if (rows.length === 0 && runs.length === 0) return '';
  const table: Table = [
    ['taken_at', 'mains', 'quantity', 'at', 'value', 'unit', 'standard_uncertainty', 'typed', 'instrument'],
    ...rows,
  ];
  return `<details><summary>${escaped(words.readings)}: ${rows.length + runs.length}</summary>${rows.length > 0 ? dataTable(table) : ''}${runs
    .map((run) => `<p>${escaped(describeRun(run))}, ${escaped(run.takenAt.slice(0, 16).replace('T', ' '))}</p>`)
    .join('')}</details>`;
}

function claims(parts: ReportParts): string {
  const { content, verdict, words } = parts;
  const rows = claimRows(content, verdict);
  if (rows.length === 0) return `<p>${escaped(words.nothing)}</p>`;
  const body = rows.map(
    (row, at) =>
      `<tr id="claim-${escaped(row.id)}"><td><strong>${escaped(row.promise)}</strong></td><td>${escaped(row.printed)}</td><td data-key="${at}"${row.loud ? ' class="loud"' : ''}>${row.loud ? '▼ ' : ''}${escaped(row.stateWords)}</td><td>${escaped(row.found)}${behind(content, row.sources, parts)}</td><td>${escaped(row.limit)}</td><td>${escaped(row.condition)}</td></tr>`,
  );
  return `<div class="wide"><table>${heads([words.promised, words.printed, words.state, words.found, words.limit, words.condition])}<tbody>${body.join('')}</tbody></table></div>`;
}

const list = (items: readonly string[]): string => `<ul>${items.map((item) => `<li>${item}</li>`).join('')}</ul>`;
const pairsOf = (rows: readonly (readonly [string, string])[]): string =>
  `<dl>${rows.map(([name, value]) => `<dt>${escaped(name)}</dt><dd>${escaped(value)}</dd>`).join('')}</dl>`;

function limits({ content, verdict, words }: ReportParts): string {
  const rows = limitRows(content, verdict);
  if (rows.length === 0) return '';
  const table: Table = [
    [words.set, words.quantity, words.limit, words.measured, words.outcome],
    ...rows.map(({ title, quantity, limit, found, outcome }) => [title, quantity, limit, found, outcome]),
  ];
  return `<h3>${escaped(words.limits)}</h3>${dataTable(table)}<p class="soft">${escaped(words.confirm)}</p>`;
}

function record({ content, verdict, words }: ReportParts): string {
  const instruments: Table = [
    [words.instrument, words.class, words.firmware, words.calibrated, words.due],
    ...instrumentRows(content).map((one) => [one.name, one.class, one.firmware, one.calibrated, one.due]),
  ];
  const deviations = deviationsOf(content, verdict);
  return `<h3>${escaped(words.instruments)}</h3>${instruments.length > 1 ? dataTable(instruments) : `<p>${escaped(words.notRecorded)}</p>`}${pairsOf(recordRows(content))}<h3>${escaped(words.deviations)}</h3>${deviations.length > 0 ? list(deviations.map(escaped)) : `<p>${escaped(words.none)}</p>`}<p><strong>${escaped(words.notSafety)}</strong></p>`;
}

/** Pictures somebody chose. */
const photos = ({ content: { photos: chosen }, words }: ReportParts): string =>
  chosen.length === 0
    ? ''
    : `<h2>${escaped(words.attachments)}</h2>${chosen
        .map(
          ({ jpeg, caption, name }) =>
            `<figure><img src="data:image/jpeg;base64,${jpeg}" alt="${escaped(caption || name)}" style="max-width:100%"><figcaption>${escaped(caption || name)}</figcaption></figure>`,
        )
        .join('')}`;

function amendment({ content: { amends, language }, words }: ReportParts): string {
  if (!amends) return '';
  const changes = amends.changes.map(({ name, was, is }) =>
    escaped(inLanguage(`${name}: ${was ?? '–'} → ${is ?? '–'}`, language)),
  );
  return `<p><strong>${escaped(filled(words.amends, { code: amends.code, day: dayIn(amends.issuedAt, language) }))}</strong><br>${escaped(words.reason)}: ${escaped(amends.reason)}${amends.fate ? ` (${escaped(amends.fate)})` : ''}</p>${changes.length > 0 ? `<p>${escaped(words.changed)}:</p>${list(changes)}` : ''}`;
}

/** The conclusion, the face, what each port was promised and proved. */
const opening = (parts: ReportParts): string => {
  const { content, words, conclusion, ports, leftOut } = parts;
  const { model } = content.dossier.sample;
  return `<h2>${escaped(words.conclusion)}</h2>${list(conclusion.map(({ says, own }) => `${escaped(says)}${own ? ` <span class="own">${escaped(words.ownWords)}</span>` : ''}`))}
${model.ports.length > 0 ? faceSvg(model.ports, 'system-ui, sans-serif') : ''}${ports.map((picture) => figure(picture, words.data, (text) => pictureWords(text, content.language))).join('')}${leftOut === '' ? '' : `<p class="soft">${escaped(leftOut)}</p>`}`;
};

/** Everything of one sample that follows. @param before what its anchors begin with */
function following(parts: ReportParts, before: string): string {
  const { content, words, stations } = parts;
  const { language } = content;
  const told = stations.map(
    ({ id, title: name, pictures, says }) =>
      `<h2 id="${escaped(before + id)}">${escaped(name)}</h2>${pictures.length === 0 && says.length === 0 ? `<p>${escaped(words.notMeasured)}.</p>` : ''}${pictures
        .map((picture) => figure(picture, words.data, (text) => pictureWords(text, content.language)))
        .join(
          '',
        )}${says.length > 0 ? `${language === 'en' ? '' : `<p class="soft">${escaped(words.judgement)}</p>`}${list(says.map(escaped))}` : ''}`,
  );
  return `<h2>${escaped(words.sample)}</h2>${pairsOf(factRows(content))}
<h2 id="${escaped(before)}claims">${escaped(words.claims)}</h2>${claims(parts)}${limits(parts)}
${told.join('\n')}
<h2 id="${escaped(before)}record">${escaped(words.record)}</h2>${record(parts)}
${photos(parts)}`;
}

/** Several samples beside each other; nothing in a report of one. */
function beside(content: ReportContent): string {
  const table = besideOf(content);
  if (!table) return '';
  const words = REPORT_WORDS[content.language];
  return `<h2 id="beside">${escaped(words.beside)}</h2><p class="soft">${escaped(words.besideNote)}</p>${dataTable([
    [words.figure, ...table.heads],
    ...table.rows.map(({ name, cells }) => [name, ...cells]),
  ])}${table.pictures.map((picture) => figure(picture, words.data, (text) => text)).join('')}`;
}

/** Another sample of the report, under its name. */
function other(content: ReportContent): string {
  const parts = partsOf(content);
  const { model, tag } = content.dossier.sample;
  return `<h1 id="${escaped(tag)}" class="next">${escaped(`${model.maker} ${model.model} ${tag}`)}</h1>${opening(parts)}${following(parts, `${tag}-`)}`;
}

/**
 * One file with everything in it. What somebody typed is text in it and never markup; the only script is told by its hash.
 * @param code the code it is known by; null for a draft
 */
export function reportHtml(content: ReportContent, code: string | null): string {
  const parts = partsOf(content);
  const { words, stations } = parts;
  const { dossier, language, issuedAt, person } = content;
  const { model, tag } = dossier.sample;
  const title = `${model.maker} ${model.model} ${tag}`;
  const others = content.others.map((own) => other(ownContent(content, own)));
  const links = [
    ...(content.others.length > 0 ? [['beside', words.beside] as const] : []),
    ['claims', words.claims],
    ...stations.map(({ id, title: name }) => [id, name] as const),
    ['record', words.record],
    ...content.others.map(
      ({ dossier: { sample } }) => [sample.tag, `${sample.model.maker} ${sample.model.model} ${sample.tag}`] as const,
    ),
  ].map(([id, name]) => `<a href="#${escaped(id)}">${escaped(name)}</a>`);
  return `<!doctype html>
<html lang="${language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; script-src 'sha256-${SCRIPT_HASH}'; img-src data:; base-uri 'none'; form-action 'none'">
<title>${escaped(title)}</title><style>${STYLE}</style></head><body>
<header><h1>${escaped(`${model.maker} ${model.model}`)}</h1><p class="soft">${escaped(code === null ? words.draft : `${words.report} ${code} · ${filled(words.issued, { day: dayIn(issuedAt, language), person })}`)}</p></header>
<nav aria-label="${escaped(words.contents)}">${list(links)}</nav>
<main>${amendment(parts)}${opening(parts)}
${beside(content)}
${following(parts, '')}
${others.join('\n')}
${code === null ? '' : `<h2>${escaped(words.code)}</h2><p><code>${escaped(code)}</code><br>${escaped(words.check)}</p>`}</main>
<script>${PAGE_SCRIPT}</script></body></html>
`;
}
