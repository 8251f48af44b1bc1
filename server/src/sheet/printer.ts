// Pages are printed with the bundled fonts; nothing is ever fetched for one, and no other file is read.
import { FONTS } from './fonts.ts';

const files = Object.values(FONTS).flatMap((faces) => Object.values(faces));

/** The printer, there from the first page on: most threads never print one. */
export async function printer() {
  const { default: pdfmake } = await import('pdfmake');
  pdfmake.setFonts(FONTS);
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((path) => files.includes(path));
  return pdfmake;
}
