// Pages are printed with the bundled fonts; nothing is ever fetched for one, and no other file is read.
import pdfmake from 'pdfmake';
import { FONTS } from './fonts.ts';

const files = Object.values(FONTS).flatMap((faces) => Object.values(faces));
pdfmake.setFonts(FONTS);
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => files.includes(path));

export { pdfmake };
