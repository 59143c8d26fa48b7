import { PAGE } from '@/core/content/item';
import { picturesIn } from '@/core/content/prose';
import { piecesOf } from '@/content/services/lib/put-pieces';
import { zipStream, type ZipPart } from '@/content/services/lib/zip-stream';
import { findFileOf } from '@/content/store/files';
import { writeItem } from '@/content/services/lib/item-markdown';
import { findItem, listItems, listRedirects, type Item } from '@/content/store/items';
import { findPicture } from '@/content/store/pictures';
import { listTiers } from '@/tiers/store/tiers';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { readSiteJson } from './lib/site-json';

/**
 * The whole site as files: `site.json`, a text for each item, pictures and files. Only what is being written is held in
 * memory. Nothing of people and money is among them. `zip`: the same as one ZIP, written while it is read.
 */
export const exportSite = staffUse('set up the site')('export-site', nothing, async () => {
  const { name } = await currentSite();
  return done({ name, entries: entries(), zip: () => zipStream(entries()) });
});

async function* entries(): AsyncGenerator<ZipPart> {
  const json = await readSiteJson();
  yield { path: 'site.json', bytes: () => once(`${JSON.stringify(json, null, 2)}\n`) };
  const heads = await listItems(pool());
  const paths = new Map(heads.map(({ path, id }) => [path, id]));
  const pictures = new Set<string>();
  for (const { pictureId } of await listTiers(pool())) if (pictureId) pictures.add(pictureId);
  const { markId } = await currentSite();
  if (markId) pictures.add(markId);
  for (const { id } of heads) {
    const item = await findItem(pool(), id);
    if (!item || item.trashedAt) continue;
    for (const picture of picturesIn(item.body)) pictures.add(picture);
    if (item.pictureId) pictures.add(item.pictureId);
    const file = await findFileOf(pool(), id);
    const filePath = file ? `files/${id}/${file.name}` : null;
    const oldAddresses = (await listRedirects(pool(), id)).map(({ path }) => path);
    yield {
      path: textPath(item),
      bytes: () =>
        once(
          writeItem(item, {
            ways: {
              picture: (address) => pictureOf(address),
              itemAt: (href) => paths.get(href) ?? null,
            },
            picture: item.pictureId ? picturePath(item.pictureId) : null,
            file: filePath,
            oldAddresses,
          }),
        ),
    };
    if (file && filePath) yield { path: filePath, bytes: () => piecesOf(file.id) };
  }
  for (const id of pictures) {
    const picture = await findPicture(pool(), id);
    if (picture) yield { path: picturePath(id), bytes: () => once(picture.bytes) };
  }
}

/** Where an item's text lies: by its address, so that a folder reads like the site. */
const textPath = ({ type, path }: Item): string =>
  `content/${type === PAGE ? 'pages' : type}${path === '/' ? '/front' : path}.md`;

const picturePath = (id: string): string => `/pictures/${id}.webp`.slice(1);

/** A picture's address by its id, and its id by its address. */
const pictureOf = (address: string): string =>
  address.startsWith('/pictures/')
    ? address.slice('/pictures/'.length).replace(/\.webp$/, '')
    : `/pictures/${address}.webp`;

// oxlint-disable-next-line typescript/require-await -- a stream like the others, of one part
async function* once(part: string | Buffer): AsyncGenerator<Uint8Array> {
  yield Buffer.from(part);
}
