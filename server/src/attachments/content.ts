// What may be attached, told by the bytes rather than by the name, and the small picture of it.
import sharp from 'sharp';
import { ProblemError } from '../http/problem.ts';

const IMAGES: Readonly<Record<string, string>> = { png: 'image/png', jpeg: 'image/jpeg', webp: 'image/webp' };
const THUMBNAIL_SIDE = 240;
/** Refuse pictures that would unpack to more than this many pixels, by their own word. */
const LARGEST_PICTURE = 25_000_000;

// One picture at a time, and nothing of it kept: a picture is unpacked whole, whatever its file is like.
sharp.cache(false);
sharp.concurrency(1);

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

const tooManyPixels = (width: number, height: number) =>
  new ProblemError(
    413,
    'Too many pixels',
    `This picture has ${width} × ${height} pixels; at most ${LARGEST_PICTURE / 1e6} million are taken. Make it smaller.`,
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
    // The header alone: nothing is unpacked yet.
    const { format = '', width = 0, height = 0 } = await sharp(bytes, { limitInputPixels: false }).metadata();
    const type = IMAGES[format];
    if (!type) return null;
    if (width * height > LARGEST_PICTURE) throw tooManyPixels(width, height);
    const thumbnail = await image
      .rotate()
      .resize(THUMBNAIL_SIDE, THUMBNAIL_SIDE, { fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 80 })
      .toBuffer();
    return { type, thumbnail };
  } catch (error) {
    if (error instanceof ProblemError) throw error;
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
