// Every sign the program can print is in the fonts it prints with.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Font, openSync } from 'fontkit';
import { describe, expect, it } from 'vitest';
import { FONTS, SHEET_FONT } from './fonts.ts';

const ROOT = join(import.meta.dirname, '../../..');
const SOURCES = ['core/src', 'server/src', 'contract/src'];
/** What engineers write on a sheet, whether or not the program says it. */
const FIELD =
  'Ω µ μ η Δ σ τ φ π ± ≤ ≥ ≈ ≠ – — … · × ÷ √ ∫ ∑ ∞ ° ′ ″ ² ³ ₀ ₁ ₂ ₙ ¼ ½ ¾ ‘ ’ “ ” „ « » ← → ↑ ↓ ▲ ▼ ◆ ● ○ € £ §';

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory()
      ? filesIn(join(folder, entry.name))
      : /\.ts$/.test(entry.name) && !/\.test\.ts$/.test(entry.name)
        ? [join(folder, entry.name)]
        : [],
  );

/** Signs beyond ASCII in code, comments left out. */
const signsIn = (text: string): string[] =>
  [...text.replace(/\/\*[\s\S]*?\*\//g, '').replace(/^\s*\/\/.*$/gm, '')].filter((sign) => sign.charCodeAt(0) > 126);

/** Signs the program reads on labels and in files and never prints. */
const ONLY_READ = new Set(['⎓', '⎯', '═', '：', '，', '、', '\ufeff']);

describe.each(Object.entries(FONTS[SHEET_FONT]))('the %s face', (_style, path) => {
  const font = openSync(path) as Font;
  const lacks = (signs: Iterable<string>) =>
    [...new Set(signs)].filter((sign) => sign.trim() !== '' && !font.hasGlyphForCodePoint(sign.codePointAt(0) ?? 0));

  it('has every sign of the field', () => expect(lacks(FIELD)).toEqual([]));

  it('has every sign in the program’s own words', () => {
    const signs = SOURCES.flatMap((folder) =>
      filesIn(join(ROOT, folder)).flatMap((file) => signsIn(readFileSync(file, 'utf8'))),
    );
    expect(signs).toContain('Ω');
    expect(lacks(signs.filter((sign) => !ONLY_READ.has(sign)))).toEqual([]);
  });

  it('has the scripts names are written in', () => expect(lacks('ÄÖÜäöüßéèêçñøåłőžčĞşАБВгдеЖЩыэюяΑΒΓαβγ')).toEqual([]));
});
