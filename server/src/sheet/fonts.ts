// The fonts of the sheet, bundled with the program.
import { createRequire } from 'node:module';

const { resolve } = createRequire(import.meta.url);
const face = (weight: number, style: string): string =>
  resolve(`@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-${style}.woff`);

export const SHEET_FONT = 'Hyperlegible';

export const FONTS = {
  [SHEET_FONT]: {
    normal: face(400, 'normal'),
    bold: face(700, 'normal'),
    italics: face(400, 'italic'),
    bolditalics: face(700, 'italic'),
  },
};
