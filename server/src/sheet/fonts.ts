// The fonts of the sheet, bundled with the program: one that has every sign the field prints.
import { createRequire } from 'node:module';

const { resolve } = createRequire(import.meta.url);
const face = (style: string): string => resolve(`dejavu-fonts-ttf/ttf/DejaVuSansCondensed${style}.ttf`);

export const SHEET_FONT = 'Condensed';

export const FONTS = {
  [SHEET_FONT]: {
    normal: face(''),
    bold: face('-Bold'),
    italics: face('-Oblique'),
    bolditalics: face('-BoldOblique'),
  },
};
