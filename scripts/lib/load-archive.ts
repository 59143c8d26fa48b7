import { readFileSync } from 'node:fs';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { z } from 'zod';
import { addLength } from '../../src/core/calendar';
import { fromText, type Node, type Prose } from '../../src/core/content/prose';
import type { Instant } from '../../src/core/instants';
import { PIECE_BYTES } from '../../src/core/upload-bounds';
import { SETUP } from '../../src/platform/actor';
import { changeItems } from '../../src/content/services/change-items';
import { savePageRole } from '../../src/content/services/page-roles';
import { saveItem } from '../../src/content/services/save-item';
import { saveContentPicture } from '../../src/content/services/save-picture';
import { beginUpload, finishUpload, takePiece } from '../../src/content/services/upload-file';
import { findItem } from '../../src/content/store/items';
import { pool } from '../../src/platform/store/db';
import { drawSky, random, SKIES, type SkyKind } from './draw-skies';
import { must } from './must';

const titled = z.tuple([z.string(), z.string(), z.enum(SKIES)]);
const journalSchema = z.object({
  openings: z.array(z.string()),
  seen: z.array(z.string()),
  closings: z.array(z.string()),
  nights: z.array(z.string()),
  guides: z.array(titled),
  guideParts: z.array(z.string()),
  frames: z.array(titled),
  lessons: z.array(titled),
  /** Id, title, parent, summary and text. */
  pages: z.array(z.tuple([z.string(), z.string(), z.string(), z.string(), z.string()])),
});
type Journal = z.output<typeof journalSchema>;

const AUTHORS = ['Ines Halloway', 'Tobit Marsh', 'Greta Lund', 'Wilf Arkwright'];
const NIGHTS = 140;
/** How many skies of each kind are drawn; posts share them. */
const SKIES_OF_A_KIND = 3;

type Made = { now: Instant; zone: string; journal: Journal; skies: Map<SkyKind, string[]> };

/** Two years of Lantern Moor's writing: pages, nightly notes, guides, frames, lessons, and the files of its library. */
export async function loadArchive(now: Instant, zone: string): Promise<void> {
  const journal = journalSchema.parse(JSON.parse(readFileSync('demo/journal.json', 'utf8')));
  const made: Made = { now, zone, journal, skies: await drawSkies() };
  await dressFirst(made);
  await loadPages(made);
  await loadNights(made);
  for (const [category, entries, offset] of [
    ['guides', journal.guides, 9],
    ['frames', journal.frames, 1],
    ['clinic', journal.lessons, 30],
  ] as const)
    await loadTitled(made, category, entries, offset);
  await loadFiles(made);
  await furnishRoom();
}

/** The members' room of the site, on the page of that name. */
async function furnishRoom(): Promise<void> {
  const page = await findItem(pool(), 'members-room');
  if (!page) return;
  const body = { type: 'doc', content: [{ type: 'panel', attrs: { panel: 'room' } }, ...page.body.content] };
  must(
    await saveItem(SETUP, { id: page.id, type: page.type, title: page.title, body, publish: 'publish' }),
    page.id,
  );
  must(await savePageRole(SETUP, { role: 'room', itemId: page.id }), 'the room');
}

async function drawSkies(): Promise<Map<SkyKind, string[]>> {
  const skies = new Map<SkyKind, string[]>();
  for (const kind of SKIES)
    for (let seed = 1; seed <= SKIES_OF_A_KIND; seed++) {
      const png = await sharp(Buffer.from(drawSky(kind, seed)))
        .png()
        .toBuffer();
      const { id } = must(await saveContentPicture(SETUP, png), kind);
      skies.set(kind, [...(skies.get(kind) ?? []), id]);
    }
  return skies;
}

const skyOf = ({ skies }: Made, kind: SkyKind, n: number): string =>
  skies.get(kind)?.[n % SKIES_OF_A_KIND] ?? '';
const ago = ({ now, zone }: Made, days: number): { at: Instant } => ({
  at: addLength(now, { n: -days, unit: 'day' }, zone),
});

/** Pictures for what was there first. */
async function dressFirst(made: Made): Promise<void> {
  const dressed: [string, SkyKind, string][] = [
    ['home', 'river', 'The Milky Way over a dark moor'],
    ['comet-note', 'comet', 'A comet with a pale tail above the hills'],
    ['zodiacal-light', 'dusk', 'A cone of light leaning out of the dusk'],
    ['frames-horsehead', 'aurora', 'A faint red cloud among stars'],
    ['frames-andromeda', 'river', 'The arms of a galaxy'],
    ['double-stars', 'trails', 'Star trails around the pole'],
    ['frost-note', 'moon', 'A thin moon on a frosty night'],
    ['first-clear-night', 'planets', 'A ringed planet between two others'],
  ];
  for (const [index, [id, kind, pictureAlt]] of dressed.entries()) {
    const item = await findItem(pool(), id);
    if (!item?.publishedAt) continue;
    const more = {
      pictureId: skyOf(made, kind, index),
      pictureAlt,
      author: item.author || AUTHORS[index % 4],
    };
    must(await saveItem(SETUP, { id, type: item.type, title: item.title, publish: 'publish', ...more }), id);
  }
}

async function loadPages(made: Made): Promise<void> {
  for (const [index, [id, title, parent, summary, text]] of made.journal.pages.entries())
    must(
      await saveItem(SETUP, {
        id,
        type: 'page',
        title,
        parentId: parent || null,
        summary,
        body: fromText(text),
        position: index,
        publish: ago(made, 300 - index),
      }),
      title,
    );
}

async function loadNights(made: Made): Promise<void> {
  const { openings, seen, closings, nights } = made.journal;
  const kinds = SKIES.filter((kind) => kind !== 'mirror');
  for (let n = 0; n < NIGHTS; n++) {
    const next = random(n + 11);
    const pick = (from: string[]): string => from[Math.floor(next() * from.length)] ?? '';
    const title = `${nights[n % nights.length] ?? ''}${n < nights.length ? '' : `, night ${n + 1}`}`;
    const first = pick(seen);
    const lines = [`${pick(openings)} ${first}`, `${pick(seen)} ${pick(seen)}`, pick(closings)];
    must(
      await saveItem(SETUP, {
        type: 'post',
        title,
        summary: first,
        body: fromText(lines.join('\n\n')),
        categories: ['sky-notes'],
        tags: [n % 3 === 0 ? 'Planets' : n % 3 === 1 ? 'Meteors' : 'Deep sky'],
        author: AUTHORS[n % AUTHORS.length],
        publish: ago(made, 4 + n * 5),
        ...(n % 4 === 0 && {
          pictureId: skyOf(made, kinds[n % kinds.length] ?? 'river', n),
          pictureAlt: 'The sky over the moor that night',
        }),
      }),
      title,
    );
  }
}

async function loadTitled(
  made: Made,
  category: string,
  entries: [string, string, SkyKind][],
  firstDay: number,
): Promise<void> {
  const { guideParts } = made.journal;
  for (const [index, [title, summary, kind]] of entries.entries()) {
    const parts = [0, 1, 2, 3].map((part) => guideParts[(index + part * 2) % guideParts.length] ?? '');
    const body: Prose = {
      type: 'doc',
      content: [
        ...fromText(parts.slice(0, 2).join('\n\n')).content,
        heading(category === 'clinic' ? 'At the bench' : 'Where to stand'),
        ...fromText(parts.slice(2).join('\n\n')).content,
      ],
    };
    must(
      await saveItem(SETUP, {
        type: 'post',
        title,
        summary,
        body,
        categories: [category],
        author: AUTHORS[index % AUTHORS.length],
        publish: ago(made, firstDay + index * 27),
        pictureId: skyOf(made, kind, index),
        pictureAlt: `A drawing for “${title}”`,
      }),
      title,
    );
  }
}

const heading = (text: string): Node => ({
  type: 'heading',
  attrs: { level: 2 },
  content: [{ type: 'text', text }],
});

const MONTHS = 'January February March April May June July August September October November December'.split(
  ' ',
);

/** Twelve charts, twelve pages of the log and six posters, offered on the pages of the library. */
async function loadFiles(made: Made): Promise<void> {
  const charts: string[] = [];
  const logs: string[] = [];
  for (const [index, month] of MONTHS.entries()) {
    charts.push(await upload(`Star chart ${month}.pdf`, await chart(month, index)));
    logs.push(await upload(`Log ${month}.csv`, Buffer.from(logOf(made.journal, index))));
  }
  const posters: string[] = [];
  for (const [index, kind] of SKIES.slice(0, 6).entries())
    posters.push(
      await upload(
        `Poster ${kind}.png`,
        await sharp(Buffer.from(drawSky(kind, 7 + index)))
          .png()
          .toBuffer(),
      ),
    );
  const offers: [string, string[]][] = [
    ['winter-charts', [11, 0, 1].map((n) => charts[n] ?? '')],
    ['spring-charts', [2, 3, 4].map((n) => charts[n] ?? '')],
    ['summer-charts', [5, 6, 7].map((n) => charts[n] ?? '')],
    ['autumn-charts', [8, 9, 10].map((n) => charts[n] ?? '')],
    ['observing-log', logs],
    ['library', posters],
  ];
  for (const [id, files] of offers) {
    const page = await findItem(pool(), id);
    if (!page) continue;
    const content = [...page.body.content, ...files.map((item): Node => ({ type: 'file', attrs: { item } }))];
    const input = {
      id,
      type: page.type,
      title: page.title,
      body: { type: 'doc', content },
      publish: 'publish',
    };
    must(await saveItem(SETUP, input), id);
  }
  must(await changeItems(SETUP, { ids: charts, change: { kind: 'add-tag', tag: 'Charts' } }), 'charts');
}

/** @returns the id of its item */
async function upload(name: string, bytes: Buffer): Promise<string> {
  const { id } = must(await beginUpload(SETUP, { name, size: bytes.length }), name);
  for (let number = 0; number * PIECE_BYTES < bytes.length; number++) {
    const piece = bytes.subarray(number * PIECE_BYTES, (number + 1) * PIECE_BYTES);
    must(await takePiece(SETUP, { id, number, bytes: piece }), name);
  }
  return must(await finishUpload(SETUP, { id, itemId: '' }), name).itemId;
}

/** A chart of one page: a circle of sky with its stars. */
async function chart(month: string, seed: number): Promise<Buffer> {
  const sheet = new PDFDocument({ size: 'A4', margin: 50 });
  const parts: Buffer[] = [];
  sheet.on('data', (part: Buffer) => parts.push(part));
  const whole = new Promise<void>((done) => sheet.on('end', done));
  const next = random(seed + 400);
  sheet
    .fontSize(22)
    .text(`The sky in ${month}`)
    .fontSize(11)
    .text('Lantern Moor, looking up, at ten in the evening.');
  sheet.circle(297, 470, 240).stroke('#333333');
  for (let n = 0; n < 260; n++) {
    const [angle, far] = [next() * 6.283, Math.sqrt(next()) * 236];
    sheet
      .circle(297 + far * Math.cos(angle), 470 + far * Math.sin(angle), next() ** 3 * 3 + 0.4)
      .fill('#111111');
  }
  sheet.end();
  await whole;
  return Buffer.concat(parts);
}

function logOf({ seen }: Journal, month: number): string {
  const next = random(month + 900);
  const rows = Array.from({ length: 9 }, (_, n) => {
    const day = 1 + n * 3;
    return `${day},${1 + Math.floor(next() * 5)},"${seen[Math.floor(next() * seen.length)] ?? ''}"`;
  });
  return ['night,seeing,seen', ...rows].join('\n');
}
