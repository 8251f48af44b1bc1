// What may be attached, told by the bytes rather than by the name, and the small picture of it.
import sharp, { type Metadata } from 'sharp';
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
  /** As it is kept: a picture stands upright and tells nobody where it was taken; everything else is as it came. */
  readonly bytes: Buffer;
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

/** Quality of a photo that has to be written anew. */
const KEPT_QUALITY = 95;

/** A picture without what the camera noted of place, time and owner, and upright; untouched where there is nothing of it. */
async function cleaned(bytes: Buffer, { format, exif, xmp, iptc, orientation }: Metadata): Promise<Buffer> {
  if (!exif && !xmp && !iptc && (orientation ?? 1) === 1) return bytes;
  // Nothing of the notes is written unless it is asked for; the colours are.
  const upright = sharp(bytes, { limitInputPixels: LARGEST_PICTURE }).rotate().keepIccProfile();
  if (format === 'jpeg') return upright.jpeg({ quality: KEPT_QUALITY, chromaSubsampling: '4:4:4' }).toBuffer();
  return format === 'webp' ? upright.webp({ quality: KEPT_QUALITY }).toBuffer() : upright.png().toBuffer();
}

async function picture(bytes: Buffer): Promise<Recognised | null> {
  try {
    const image = sharp(bytes, { limitInputPixels: LARGEST_PICTURE });
    // The header alone: nothing is unpacked yet.
    const about = await sharp(bytes, { limitInputPixels: false }).metadata();
    const { format = '', width = 0, height = 0 } = about;
    const type = IMAGES[format];
    if (!type) return null;
    if (width * height > LARGEST_PICTURE) throw tooManyPixels(width, height);
    const thumbnail = await image
      .rotate()
      .resize(THUMBNAIL_SIDE, THUMBNAIL_SIDE, { fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 80 })
      .toBuffer();
    return { type, thumbnail, bytes: await cleaned(bytes, about) };
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    return null;
  }
}

/** Recognise a file. @throws 415 for anything that is not a picture, PDF or text, or is empty */
export async function recognise(bytes: Buffer, name: string): Promise<Recognised> {
  if (bytes.length === 0) throw new ProblemError(415, 'Empty file', `"${name}" is empty.`);
  if (bytes.subarray(0, 5).toString('latin1') === '%PDF-') return { type: 'application/pdf', thumbnail: null, bytes };
  const image = await picture(bytes);
  if (image) return image;
  if (/\.(csv|json|txt|log|tsv)$/i.test(name) && isText(bytes)) return { type: textType(name), thumbnail: null, bytes };
  throw refuse();
}

/** A photo as it is printed: no wider than a page needs, as JPEG. @param bytes of a picture that was taken in */
export async function printable(bytes: Buffer): Promise<Buffer> {
  return sharp(bytes, { limitInputPixels: LARGEST_PICTURE })
    .resize(1000, 1000, { fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#ffffff' })
    .jpeg({ quality: 82 })
    .toBuffer();
}
