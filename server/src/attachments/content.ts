// What may be attached, told by the bytes rather than by the name, and the small picture of it.
import sharp from 'sharp';
import { ProblemError } from '../http/problem.ts';

const IMAGES: Readonly<Record<string, string>> = { png: 'image/png', jpeg: 'image/jpeg', webp: 'image/webp' };
const THUMBNAIL_SIDE = 240;
/** Refuse pictures that would unpack to more than this many pixels. */
const LARGEST_PICTURE = 100_000_000;

export interface Recognised {
  readonly type: string;
  readonly thumbnail: Buffer | null;
}

const refuse = () =>
  new ProblemError(
    415,
    'Not a file to attach',
    'Attach a PNG, JPEG or WebP picture, a PDF, or a text file (CSV, JSON, TXT).',
  );

function isText(bytes: Buffer): boolean {
  try {
    return !new TextDecoder('utf-8', { fatal: true }).decode(bytes).includes('\u0000');
  } catch {
    return false;
  }
}

function textType(name: string): string {
  if (/\.json$/i.test(name)) return 'application/json';
  return /\.csv$/i.test(name) ? 'text/csv' : 'text/plain';
}

async function picture(bytes: Buffer): Promise<Recognised | null> {
  try {
    const image = sharp(bytes, { limitInputPixels: LARGEST_PICTURE });
    const type = IMAGES[(await image.metadata()).format ?? ''];
    if (!type) return null;
    const thumbnail = await image
      .rotate()
      .resize(THUMBNAIL_SIDE, THUMBNAIL_SIDE, { fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 80 })
      .toBuffer();
    return { type, thumbnail };
  } catch {
    return null;
  }
}

/** Recognise a file. @throws 415 for anything that is not a picture, PDF or text, or is empty */
export async function recognise(bytes: Buffer, name: string): Promise<Recognised> {
  if (bytes.length === 0) throw new ProblemError(415, 'Empty file', `"${name}" is empty.`);
  if (bytes.subarray(0, 5).toString('latin1') === '%PDF-') return { type: 'application/pdf', thumbnail: null };
  const image = await picture(bytes);
  if (image) return image;
  if (/\.(csv|json|txt|log|tsv)$/i.test(name) && isText(bytes)) return { type: textType(name), thumbnail: null };
  throw refuse();
}
