import { PassThrough, Readable } from 'node:stream';
import { beforeAll, describe, expect, it } from 'vitest';
import sharp from 'sharp';
import { ZipFile } from 'yazl';
import { viewItem } from '../../src/access/services/view-item';
import { saveCategory } from '../../src/content/services/categories';
import { saveItem } from '../../src/content/services/save-item';
import { saveContentPicture } from '../../src/content/services/save-picture';
import { beginUpload, finishUpload, takePiece } from '../../src/content/services/upload-file';
import { findItem } from '../../src/content/store/items';
import { savePass } from '../../src/access/services/passes';
import { saveProduct } from '../../src/tiers/services/products';
import { savePageRole } from '../../src/content/services/page-roles';
import { fromText, type Node } from '../../src/core/content/prose';
import { PIECE_BYTES } from '../../src/core/upload-bounds';
import { exportSite } from '../../src/desk/services/export-site';
import { importStep, type ImportLine } from '../../src/desk/services/import-site';
import { SETUP, VISITOR_ACTOR } from '../../src/platform/actor';
import { pool } from '../../src/platform/store/db';
import { lanternMoor, rows, value } from './lantern-moor';

const moor = lanternMoor();

async function sendPieces(bytes: Buffer, name: string): Promise<string> {
  const { id } = value(await beginUpload(SETUP, { name, size: bytes.length, isImport: true }));
  for (let number = 0; number * PIECE_BYTES < bytes.length; number++) {
    const piece = bytes.subarray(number * PIECE_BYTES, (number + 1) * PIECE_BYTES);
    value(await takePiece(SETUP, { id, number, bytes: piece }));
  }
  return id;
}

/** The whole of an export, by path. */
async function exported(): Promise<Map<string, Buffer>> {
  const files = new Map<string, Buffer>();
  for await (const { path, bytes } of value(await exportSite(moor.owner)).entries) {
    const parts: Uint8Array[] = [];
    for await (const part of bytes()) parts.push(part);
    files.set(path, Buffer.concat(parts));
  }
  return files;
}

async function zipped(files: Map<string, Buffer | string>): Promise<Buffer> {
  const zip = new ZipFile();
  for (const [path, bytes] of files) zip.addBuffer(Buffer.from(bytes), path);
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of (zip.outputStream as Readable).pipe(new PassThrough())) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** All steps of an import. */
async function brought(uploadId: string, isDry = false): Promise<ImportLine[]> {
  const lines: ImportLine[] = [];
  let id = uploadId;
  for (let from: number | null = 0; from !== null;) {
    const step: { lines: ImportLine[]; next: number | null; uploadId: string } = value(
      await importStep(moor.owner, { uploadId: id, from, isDry }),
    );
    id = step.uploadId;
    lines.push(...step.lines);
    from = step.next;
  }
  return lines;
}
const of = (lines: ImportLine[], is: ImportLine['is']): string[] =>
  lines.filter((line) => line.is === is).map((line) => line.path);

describe('the whole site', () => {
  let first: Map<string, Buffer>;
  beforeAll(async () => {
    const picture = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#246' } })
      .png()
      .toBuffer();
    const { id: pictureId } = value(await saveContentPicture(SETUP, picture));
    const pdf = Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(1_200_000, 'y')]);
    const file = value(
      await finishUpload(SETUP, { id: await sendPieces(pdf, 'Plan of the dome.pdf'), itemId: '' }),
    );
    const gate = {
      rule: null,
      openTo: [{ who: { kind: 'tier' as const, id: 'observer' } }],
      instead: 'Say "please".',
    };
    const parts: Node[] = [
      { type: 'image', attrs: { picture: pictureId, alt: 'Blue', caption: 'A blue one' } },
      { type: 'file', attrs: { item: file.itemId } },
      { type: 'section', attrs: gate, content: fromText('For those who ask.').content },
      {
        type: 'paragraph',
        content: [
          {
            type: 'text',
            text: 'there',
            marks: [{ type: 'link', attrs: { href: '/visit', item: 'visit' } }],
          },
        ],
      },
      // Markdown cannot hold a cell over two columns.
      {
        type: 'table',
        content: [
          {
            type: 'tableRow',
            content: [
              { type: 'tableCell', attrs: { colspan: 2, rowspan: 1 }, content: fromText('wide').content },
            ],
          },
        ],
      },
    ];
    const deep = value(await saveCategory(SETUP, { name: 'Aurora', parentId: 'sky-notes' }));
    value(
      await saveItem(SETUP, {
        id: 'everything',
        type: 'post',
        title: 'Everything: at “once”',
        summary: 'A colon: and a # sign',
        body: { type: 'doc', content: parts },
        tags: ['Northern lights'],
        categories: [deep.id],
        pictureId,
        pictureAlt: 'Blue, too',
        author: 'Greta Lund',
        publish: 'publish',
      }),
    );
    value(await saveItem(SETUP, { id: 'gone', type: 'page', title: 'Withdrawn', publish: 'publish' }));
    value(
      await saveItem(SETUP, {
        id: 'gone',
        type: 'page',
        title: 'Withdrawn',
        slug: 'elsewhere',
        publish: 'draft',
      }),
    );
    value(
      await saveItem(SETUP, {
        type: 'link',
        id: 'cam',
        title: 'Camera',
        target: 'https://sky.example/',
        publish: 'publish',
      }),
    );
    value(await savePageRole(SETUP, { role: 'room', itemId: 'members-room' }));
    const pass = value(await savePass(SETUP, { name: 'Clinic', version: 0 }));
    for (const [sells, name] of [
      [`pass:${pass.id}`, 'One clinic'],
      ['tier:observer', 'A month as a gift'],
    ])
      value(
        await saveProduct(SETUP, {
          id: null,
          name,
          sells,
          amount: '4.50',
          lasts: { n: 30, unit: 'day' },
          mostDevices: '2',
          taxKindId: null,
          onSale: true,
          holderPrices: [{ tierId: 'warden', amount: 100, charges: 1 }],
        }),
      );
    await rows(`UPDATE site SET joining = 'by-code', register_offer_id = 'gazer-free'`);
    first = await exported();
  });

  it('goes out as texts that people can read, with everything that is no person and no money', () => {
    const text = first.get('content/post/posts/everything-at-once.md')?.toString() ?? '';
    expect(text).toContain(':::section {tiers="observer" instead="Say &quot;please&quot;."}');
    expect(text).toContain('[there](/visit)');
    expect(text).toMatch(/!\[Blue\]\(\/pictures\/[0-9a-f-]{36}\.webp "A blue one"\)/);
    expect([...first.keys()]).toContain('content/pages/library/winter-charts.md');
    expect(JSON.stringify([...first.values()].map(String))).not.toMatch(
      /ines@moor\.example|password_hash|sk_test/,
    );
  });

  it('comes in on an empty site as the same site', async () => {
    // The site refers to an offer, so it would be emptied with the offers.
    await rows('CREATE TABLE kept_site AS TABLE site');
    await rows(
      `TRUNCATE items, categories, tags, menu_entries, rules, page_roles, item_drafts, redirects, offers, offer_versions, tiers, ladders, join_fields RESTART IDENTITY CASCADE`,
    );
    await rows(`UPDATE kept_site SET joining = 'open', register_offer_id = NULL`);
    await rows('INSERT INTO site TABLE kept_site');
    await rows('DROP TABLE kept_site');
    await rows('DELETE FROM files');
    await rows('UPDATE site SET mark_id = NULL');
    await rows('DELETE FROM pictures');
    const uploadId = await sendPieces(await zipped(first), 'site.zip');
    const dry = await brought(uploadId, true);
    expect([of(dry, 'problem'), (await rows('SELECT 1 FROM items')).length]).toEqual([[], 0]);
    const lines = await brought(uploadId);
    expect(lines.filter(({ is }) => is === 'problem')).toEqual([]);
    const second = await exported();
    expect([...second.keys()].sort()).toEqual([...first.keys()].sort());
    const plain = (files: Map<string, Buffer>, path: string): string => {
      const text = String(files.get(path));
      // Entries of the menu have no names: each coming in gives them new ids.
      return path === 'site.json' ? text.replace(/"[0-9a-f]{8}-[0-9a-f-]{27}"/g, '"id"') : text;
    };
    for (const path of first.keys())
      if (!path.startsWith('pictures/'))
        expect([path, plain(second, path)]).toEqual([path, plain(first, path)]);
    expect(await viewItem(VISITOR_ACTOR, '/posts/zodiacal-light')).toMatchObject({
      value: { kind: 'doorstep' },
    });
  });

  it('comes in again without doubles, and says so', async () => {
    const uploadId = await sendPieces(await zipped(first), 'site.zip');
    const before = await rows('SELECT id, version FROM items ORDER BY id');
    const lines = await brought(uploadId);
    expect([of(lines, 'new'), of(lines, 'problem')]).toEqual([[], []]);
    expect(await rows('SELECT id, version FROM items ORDER BY id')).toEqual(before);
  });
});

describe('a folder of Markdown', () => {
  const post = (title: string, text: string, more = ''): string =>
    `---\ntitle: ${title}\n${more}---\n${text}\n`;

  it('comes in with its pictures, line by line; what cannot be read is said, and the rest comes', async () => {
    const blue = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#247' } })
      .png()
      .toBuffer();
    const files = new Map<string, Buffer | string>([
      [
        'posts/one.md',
        post('One night', 'Words.\n\n![The hut](img/hut.png "The hut")', 'date: 2026-03-04\n'),
      ],
      ['posts/img/hut.png', blue],
      ['pages/hut.md', post('The hut', 'See [one night](/posts/one).')],
      ['posts/bad.md', 'No head at all.'],
      ['posts/worse.md', '---\ntitle: [\n---\nx'],
      ['posts/open.md', post('Too open', ':::section{tiers=observer\nSecret.\n:::')],
      ['posts/lost.md', post('Lost', '![Nothing](nothing.png)')],
      ['notes.txt', 'left alone'],
    ]);
    const uploadId = await sendPieces(await zipped(files), 'folder.zip');
    const dry = await brought(uploadId, true);
    expect(await findItem(pool(), 'posts-one')).toBeUndefined();
    const lines = await brought(uploadId);
    expect(lines).toEqual(dry);
    expect(lines.filter(({ is }) => is === 'problem').map(({ path, code }) => [path, code])).toEqual([
      ['posts/bad.md', 'import.no-head'],
      ['posts/lost.md', 'import.no-picture'],
      ['posts/open.md', 'import.section-unreadable'],
      ['posts/worse.md', 'import.bad-head'],
    ]);
    expect(await findItem(pool(), 'posts-one')).toMatchObject({
      type: 'post',
      path: '/posts/one',
      publishedAt: '2026-03-04T00:00:00Z',
      body: { content: [{ type: 'paragraph' }, { type: 'image', attrs: { alt: 'The hut' } }] },
    });
    expect(await findItem(pool(), 'pages-hut')).toMatchObject({
      type: 'page',
      path: '/hut',
      publishedAt: null,
    });
    const again = await brought(uploadId);
    expect([of(again, 'new'), of(again, 'changed')]).toEqual([[], []]);
  });

  it('that is no ZIP, or ends too soon, is refused in words', async () => {
    for (const bytes of [
      Buffer.from('no zip'),
      (await zipped(new Map([['a.md', post('A', 'x')]]))).subarray(0, 60),
    ]) {
      const uploadId = await sendPieces(bytes, 'x.zip');
      expect(await importStep(moor.owner, { uploadId, from: 0, isDry: true })).toMatchObject({
        problems: { '': { code: 'import.not-zip' } },
      });
    }
  });

  it('of many posts comes in in steps, and holds no more than one text at a time', async () => {
    const files = new Map<string, string>();
    for (let n = 0; n < 200; n++)
      files.set(`posts/n${n}.md`, post(`Night ${n}`, 'Words of it. '.repeat(200)));
    const uploadId = await sendPieces(await zipped(files), 'many.zip');
    const step = value(await importStep(moor.owner, { uploadId, from: 0, isDry: false }));
    expect([step.lines.length, step.next, step.total]).toEqual([40, 40, 200]);
    expect(of(await brought(uploadId), 'new')).toHaveLength(160);
  });
});

describe('an export of another site as a feed', () => {
  const item = (n: number, more = ''): string =>
    `<item><title>Night ${n}</title><link>https://hill.example/diary/night-${n}/</link><pubDate>Wed, 04 Mar 2026 21:30:00 +0100</pubDate>
     <category>nights</category><description>In short</description><content:encoded><![CDATA[<h2>Sky</h2><p>Clear, ${n}. <img src="https://hill.example/a.jpg" alt="The hill">${more}</p>]]></content:encoded></item>`;
  const feed = (items: string): Buffer =>
    Buffer.from(`<rss version="2.0"><channel><title>Hill</title>${items}</channel></rss>`);
  const many = Array.from({ length: 90 }, (_, n) => item(n + 1)).join('');

  it('becomes posts, with their dates, tags and old addresses; again, none is doubled', async () => {
    const upload = await sendPieces(feed(many), 'diary.xml');
    expect((await brought(upload, true)).every(({ is }) => is === 'new')).toBe(true);
    expect(await findItem(pool(), 'posts-night-1')).toBeUndefined();
    expect(await brought(upload)).toHaveLength(90);
    const night = await findItem(pool(), 'posts-night-7');
    expect(night).toMatchObject({
      title: 'Night 7',
      path: '/posts/night-7',
      summary: 'In short',
      publishedAt: '2026-03-04T20:30:00Z',
      tags: ['nights'],
    });
    expect(JSON.stringify(night?.body)).toContain('https://hill.example/a.jpg');
    expect(value(await viewItem(VISITOR_ACTOR, '/diary/night-7'))).toEqual({
      kind: 'moved',
      path: '/posts/night-7',
    });
    const again = await sendPieces(feed(many.replace('Clear, 3.', 'Cloud, 3.')), 'diary.xml');
    expect((await brought(again)).map(({ is }) => is).filter((is) => is !== 'same')).toEqual(['changed']);
  });

  it('is refused where it is neither a feed nor a ZIP', async () => {
    const upload = await sendPieces(Buffer.from('<html><body>No feed</body></html>'), 'page.xml');
    expect(await importStep(moor.owner, { uploadId: upload, from: 0, isDry: true })).toMatchObject({
      problems: { '': { code: 'import.not-zip' } },
    });
  });

  it('is read, and never becomes a file of the site', async () => {
    const upload = await sendPieces(feed(item(1)), 'diary.xml');
    expect(await finishUpload(SETUP, { id: upload, itemId: '' })).toMatchObject({
      problems: { '': { code: 'file.unknown-kind' } },
    });
  });
});
