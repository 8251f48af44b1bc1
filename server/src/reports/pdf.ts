// A report as PDF: several pages, contents, real text, charts as vectors drawn from the data of the screens.
import { dayIn, filled, inLanguage } from '@lastmark/core/conclusion';
import { faceSvg, faceWidth, type Picture, toSvg } from '@lastmark/core/picture';
import { pictureWords, REPORT_WORDS } from '@lastmark/core/report';
import type { Column, Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { SHEET_FONT } from '../sheet/fonts.ts';
import { printer } from '../sheet/printer.ts';
import { besideOf } from './beside.ts';
import { ownContent, type ReportContent } from './content.ts';
import { partsOf, type ReportParts } from './parts.ts';
import { deviationsOf, factRows, recordRows } from './rows.ts';
import { besideTables, claimTable, instrumentTable, limitTable, pairs } from './tables.ts';

const MARGIN = 42;
const WIDTH = 595 - 2 * MARGIN;
const GAP = 14;
const HALF = (WIDTH - GAP) / 2;
const HALF_HEIGHT = 168;
const PHOTO_HEIGHT = 190;

/** A picture, with what it shows below it; never parted from its title. */
const pictured = (picture: Picture, say: (text: string) => string, width = WIDTH): Content => ({
  unbreakable: true,
  margin: [0, 4, 0, 8],
  stack: [
    { text: say(picture.title), bold: true, margin: [0, 0, 0, 2] },
    {
      svg: toSvg(picture, {
        width,
        font: SHEET_FONT,
        words: say,
        ...(picture.kind === 'plot' && width < WIDTH ? { height: HALF_HEIGHT } : null),
      }),
      width,
    },
    { text: say(picture.caption), style: 'note' },
  ],
});

/** Pictures on the page: plots two beside each other, bars over the whole of it. */
function laidOut(pictures: readonly Picture[], say: (text: string) => string): Content[] {
  const plots = pictures.filter(({ kind }) => kind === 'plot');
  const rows = Array.from({ length: Math.ceil(plots.length / 2) }, (_, at) => plots.slice(at * 2, at * 2 + 2));
  return [
    ...pictures.filter(({ kind }) => kind === 'bars').map((picture) => pictured(picture, say)),
    ...rows.map(
      (row): Content =>
        row.length === 1 && row[0] && plots.length === 1
          ? pictured(row[0], say)
          : {
              unbreakable: true,
              columnGap: GAP,
              columns: row.map((picture) => ({ width: HALF, stack: [pictured(picture, say, HALF)] })),
            },
    ),
  ];
}

/** A heading stands on the page of what follows it. */
const withHeading = (name: string, parts: readonly Content[]): Content[] => {
  const [first, ...rest] = parts;
  return first ? [{ unbreakable: true, stack: [heading(name), first] }, ...rest] : [heading(name)];
};

const heading = (text: string, first = false): Content => ({
  text,
  style: 'heading',
  tocItem: true,
  ...(first ? {} : { margin: [0, 14, 0, 4] }),
});

/** The stations in the order of the work, each with its pictures and what the judgement says. */
function stationParts({ content: { language }, words, stations }: ReportParts): Content[] {
  const say = (text: string) => pictureWords(text, language);
  return stations.flatMap(({ title, pictures, says }): Content[] => {
    if (pictures.length === 0 && says.length === 0)
      return withHeading(title, [{ text: `${words.notMeasured}.`, style: 'note' }]);
    const [firstSaid, ...otherSaid] = says;
    return withHeading(title, [
      ...laidOut(pictures, say),
      ...(firstSaid === undefined
        ? []
        : [
            // Words and their head stay together.
            {
              unbreakable: true,
              stack: [...(language === 'en' ? [] : [{ text: words.judgement, style: 'note' }]), { ul: [firstSaid] }],
            } as Content,
            { ul: otherSaid, margin: [0, 0, 0, 6] } as Content,
          ]),
    ]);
  });
}

/** What a record must hold: instruments, dates, ambient, rule, deviations. */
function recordPart({ content, verdict, words }: ReportParts): Content[] {
  const deviations = deviationsOf(content, verdict);
  return [
    heading(words.record),
    ...instrumentTable(content),
    pairs(recordRows(content)),
    { text: words.notSafety, bold: true, margin: [0, 6, 0, 0] },
    { text: words.deviations, style: 'part' },
    deviations.length === 0 ? { text: words.none, style: 'note' } : { ul: [...deviations], margin: [0, 2, 0, 6] },
  ];
}

/** Pictures somebody chose, two beside each other, each with what it shows. */
function photoPart({ content: { photos }, words }: ReportParts): Content[] {
  if (photos.length === 0) return [];
  const shown = photos.map(
    ({ jpeg, caption, name }): Column => ({
      width: HALF,
      stack: [
        { image: `data:image/jpeg;base64,${jpeg}`, fit: [HALF, PHOTO_HEIGHT] },
        { text: caption || name, style: 'note' },
      ],
    }),
  );
  const rows = Array.from({ length: Math.ceil(shown.length / 2) }, (_, at) => shown.slice(at * 2, at * 2 + 2));
  return withHeading(
    words.attachments,
    rows.map((columns): Content => ({ unbreakable: true, columnGap: GAP, columns, margin: [0, 2, 0, 8] })),
  );
}

function amendment({ amends, language }: ReportContent): Content[] {
  if (!amends) return [];
  const words = REPORT_WORDS[language];
  const { code, issuedAt, reason, changes, fate } = amends;
  return [
    {
      stack: [
        { text: filled(words.amends, { code, day: dayIn(issuedAt, language) }), bold: true },
        { text: `${words.reason}: ${reason}${fate ? ` (${fate})` : ''}` },
        ...(changes.length === 0
          ? []
          : [
              { text: `${words.changed}:`, margin: [0, 3, 0, 0] } as Content,
              {
                ul: changes.map(({ name, was, is }) => inLanguage(`${name}: ${was ?? '–'} → ${is ?? '–'}`, language)),
              } as Content,
            ]),
      ],
      margin: [0, 6, 0, 10],
    },
  ];
}

/** What a report opens with: the conclusion, the face, what each port was promised and proved. */
function opening({ content, words, conclusion, ports, leftOut }: ReportParts): Content[] {
  const { language } = content;
  const { model } = content.dossier.sample;
  const say = (text: string) => pictureWords(text, language);
  return [
    heading(words.conclusion, true),
    {
      ul: conclusion.map(({ says, own }) => ({
        text: [says, ...(own ? [{ text: ` (${words.ownWords})`, italics: true }] : [])],
      })),
      margin: [0, 2, 0, 8],
    },
    ...(model.ports.length === 0
      ? []
      : [
          {
            svg: faceSvg(model.ports, SHEET_FONT),
            width: Math.min(WIDTH, faceWidth(model.ports) * 0.75),
            margin: [0, 4, 0, 4],
          } as Content,
        ]),
    ...ports.map((picture) => pictured(picture, say)),
    ...(leftOut === '' ? [] : [{ text: leftOut, style: 'note' } as Content]),
  ];
}

/** Everything of one sample that follows. */
const following = (parts: ReportParts): Content[] => [
  heading(parts.words.sample),
  pairs(factRows(parts.content)),
  heading(parts.words.claims),
  ...claimTable(parts.content, parts.verdict),
  ...limitTable(parts.content, parts.verdict),
  ...stationParts(parts),
  ...recordPart(parts),
  ...photoPart(parts),
];

/** Words that are in the language of the report already. */
const same = (text: string): string => text;

/** Several samples beside each other; nothing in a report of one. */
function beside(content: ReportContent): Content[] {
  const table = besideOf(content);
  const words = REPORT_WORDS[content.language];
  return table
    ? [
        heading(words.beside),
        { text: words.besideNote, style: 'note' },
        ...besideTables(table, words.figure),
        ...table.pictures.map((picture) => pictured(picture, same)),
      ]
    : [];
}

/** Another sample of the report: on pages of its own. */
function other(parts: ReportParts): Content[] {
  const { model, tag } = parts.content.dossier.sample;
  return [
    {
      text: `${model.maker} ${model.model} ${tag}`,
      style: 'title',
      pageBreak: 'before',
      tocItem: true,
      tocStyle: { bold: true },
    },
    ...opening(parts),
    ...following(parts),
  ];
}

/** Everything on its pages. @param code null for a draft */
function body(content: ReportContent, code: string | null): Content[] {
  const parts = partsOf(content);
  const { words } = parts;
  const { dossier, language, person, issuedAt } = content;
  const { model } = dossier.sample;
  return [
    { text: `${model.maker} ${model.model}`, style: 'title' },
    {
      text:
        code === null
          ? words.draft
          : `${words.report} ${code} · ${filled(words.issued, { day: dayIn(issuedAt, language), person })}`,
      style: 'facts',
    },
    ...amendment(content),
    ...opening(parts),
    { toc: { title: { text: words.contents, style: 'part' }, numberStyle: { bold: true } }, margin: [0, 8, 0, 0] },
    ...beside(content),
    ...following(parts),
    ...content.others.flatMap((own) => other(partsOf(ownContent(content, own)))),
    ...(code === null
      ? []
      : ([
          heading(words.code),
          {
            unbreakable: true,
            columns: [
              { qr: code, fit: 84, width: 100 },
              {
                stack: [
                  { text: code, style: 'code' },
                  { text: words.check, margin: [0, 4, 0, 0] },
                ],
              },
            ],
          },
        ] as Content[])),
  ];
}

/**
 * The PDF of a report.
 * @param code the code it is known by; null for a draft, which says that it is one on every page
 */
export async function reportPdf(content: ReportContent, code: string | null): Promise<Buffer> {
  const { dossier, language, issuedAt } = content;
  const words = REPORT_WORDS[language];
  const { model, tag } = dossier.sample;
  const title = `${model.maker} ${model.model} ${tag}`;
  const definition: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [MARGIN, 40, MARGIN, 44],
    language,
    info: { title, producer: 'Lastmark', creationDate: new Date(issuedAt), ...(code ? { subject: code } : null) },
    defaultStyle: { font: SHEET_FONT, fontSize: 9, lineHeight: 1.15 },
    styles: {
      title: { fontSize: 20, bold: true },
      facts: { fontSize: 10, color: '#4a5952', margin: [0, 2, 0, 8] },
      heading: { fontSize: 14, bold: true, margin: [0, 0, 0, 4] },
      part: { fontSize: 11, bold: true, margin: [0, 6, 0, 2] },
      head: { bold: true, fontSize: 8.5 },
      note: { fontSize: 8.5, italics: true, margin: [0, 0, 0, 4] },
      code: { fontSize: 16, bold: true },
    },
    footer: (page, pages) => ({
      columns: [
        { text: `${title} · ${code ?? words.draft}`, fontSize: 7.5, margin: [MARGIN, 10, 0, 0] },
        {
          text: filled(words.page, { page: String(page), pages: String(pages) }),
          alignment: 'right',
          fontSize: 7.5,
          margin: [0, 10, MARGIN, 0],
        },
      ],
    }),
    content: body(content, code),
  };
  return (await printer()).createPdf(definition).getBuffer();
}
