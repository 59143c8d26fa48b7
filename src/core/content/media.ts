/** What files may be, by the ending of their name: the media type under which each is sent. */
const BY_CONTENT: Record<string, string> = {
  pdf: 'application/pdf',
  epub: 'application/epub+zip',
  zip: 'application/zip',
  gz: 'application/gzip',
  jpg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  gif: 'image/gif',
  avif: 'image/avif',
  tif: 'image/tiff',
  mp3: 'audio/mpeg',
  m4a: 'audio/mp4',
  ogg: 'audio/ogg',
  opus: 'audio/ogg',
  flac: 'audio/flac',
  wav: 'audio/wav',
  mp4: 'video/mp4',
  webm: 'video/webm',
  mov: 'video/quicktime',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  pptx: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
  odt: 'application/vnd.oasis.opendocument.text',
  ods: 'application/vnd.oasis.opendocument.spreadsheet',
  odp: 'application/vnd.oasis.opendocument.presentation',
};
/** What nothing in the bytes tells apart: they have to be text. */
const TEXTS: Record<string, string> = {
  txt: 'text/plain; charset=utf-8',
  md: 'text/markdown; charset=utf-8',
  csv: 'text/csv; charset=utf-8',
  ics: 'text/calendar; charset=utf-8',
  json: 'application/json',
};
const SAME: Record<string, string> = {
  jpeg: 'jpg',
  tiff: 'tif',
  oga: 'ogg',
  m4b: 'm4a',
  m4v: 'mp4',
  tgz: 'gz',
};

export const FILE_ENDINGS: readonly string[] = [...Object.keys(BY_CONTENT), ...Object.keys(TEXTS)];

export const endingOf = (name: string): string => {
  const ending = /\.([A-Za-z0-9]{1,8})$/.exec(name)?.[1]?.toLowerCase() ?? '';
  return SAME[ending] ?? ending;
};

/** Whether text could be markup that a browser would run, whatever it is called. */
const isMarkup = (text: string): boolean =>
  /^\s*(<!doctype|<html|<svg|<\?xml|<script)/i.test(text.slice(0, 1000));

/**
 * The media type of a file, by its name and by its content; null where it may not be kept: its ending is unknown, or its
 * bytes are something else than it says.
 * @param found the ending that fits the bytes, where a format was recognised
 * @param text the beginning as text, where it is UTF-8
 */
export function mediaTypeOf(name: string, found: string | undefined, text: string | null): string | null {
  const ending = endingOf(name);
  const plain = TEXTS[ending];
  if (plain) return found === undefined && text !== null && !isMarkup(text) ? plain : null;
  const type = BY_CONTENT[ending];
  if (!type || found === undefined) return null;
  const real = SAME[found] ?? found;
  const isSame = real === ending || (BY_CONTENT[real] ?? real) === type;
  // Containers are recognised by their outside: sound in an MP4, Opus in Ogg.
  const isContainer = (ending === 'm4a' && real === 'mp4') || (ending === 'opus' && real === 'ogg');
  return isSame || isContainer ? type : null;
}

/** What a browser may show by itself, within its own walls; everything else is saved. */
export const isShownInBrowser = (mediaType: string): boolean =>
  /^(image\/(?!tiff)|audio\/|video\/|application\/pdf$)/.test(mediaType);

/** The bytes that are asked for: from the first to the last, both counted from 0. */
export type ByteRange = { first: number; last: number };

/**
 * The one range that a Range header asks for (RFC 9110, section 14). Undefined: all of it, also where several are asked
 * for. Null: there is no such part.
 */
export function byteRange(header: string | null, size: number): ByteRange | null | undefined {
  const match = /^bytes=(\d{0,15})-(\d{0,15})$/.exec(header?.trim() ?? '');
  if (!match || (match[1] === '' && match[2] === '')) return undefined;
  const [, from = '', to = ''] = match;
  if (from === '') {
    const length = Math.min(Number(to), size);
    return length === 0 ? null : { first: size - length, last: size - 1 };
  }
  const first = Number(from);
  const last = to === '' ? size - 1 : Math.min(Number(to), size - 1);
  if (to !== '' && Number(to) < first) return undefined;
  return first >= size ? null : { first, last };
}

/** A size as people read it: bytes, then kB, MB and GB of 1000 each. */
export function sizeIn(size: number): {
  amount: number;
  unit: 'byte' | 'kilobyte' | 'megabyte' | 'gigabyte';
} {
  if (size < 1000) return { amount: size, unit: 'byte' };
  if (size < 1_000_000) return { amount: Math.round(size / 1000), unit: 'kilobyte' };
  if (size < 1_000_000_000) return { amount: Math.round(size / 100_000) / 10, unit: 'megabyte' };
  return { amount: Math.round(size / 10_000_000) / 100, unit: 'gigabyte' };
}
