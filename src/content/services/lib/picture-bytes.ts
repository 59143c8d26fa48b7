import sharp from 'sharp';

const MAX_PIXELS = 40_000_000;
/** What a camera or a painter writes. Drawings that could carry a script or lead elsewhere are not among them. */
const FORMATS = new Set<string | undefined>(['jpeg', 'png', 'webp', 'heif', 'gif']);
/** What a card shows at twice its size, and what fills a wide screen. */
const BOXES = { tier: { width: 1280, height: 960 }, content: { width: 2000, height: 2000 } };
/** Where a picture is shown small. */
const SMALL = { width: 720, height: 720 };

export type PictureBytes = { width: number; height: number; bytes: Buffer; small: Buffer | null };

/**
 * A picture as it is kept: whatever was uploaded is decoded and written anew as WebP, so that nothing but a picture is
 * ever served, without what a camera hides in it. Null where it cannot be read as one.
 */
export async function pictureBytes(of: keyof typeof BOXES, given: Uint8Array): Promise<PictureBytes | null> {
  try {
    const { format } = await sharp(given, { limitInputPixels: MAX_PIXELS }).metadata();
    if (!FORMATS.has(format)) return null;
    const whole = await resized(given, BOXES[of]);
    const small = of === 'content' ? (await resized(whole.data, SMALL)).data : null;
    return { width: whole.info.width, height: whole.info.height, bytes: whole.data, small };
  } catch {
    return null;
  }
}

const resized = (bytes: Uint8Array, box: { width: number; height: number }) =>
  sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
    .rotate()
    .resize({ ...box, fit: 'inside', withoutEnlargement: true })
    .webp({ quality: 82 })
    .toBuffer({ resolveWithObject: true });
