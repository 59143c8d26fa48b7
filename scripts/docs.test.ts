import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { ROOMS } from './lib/rooms';

const PLACES = /^(src|tests|scripts|migrations|stand-ins|demo|bench|docs)\//;
const FILE = /\.(ts|tsx|mjs|sql|sh|md)$/;
const DOCS = [
  'README.md',
  'CONTRIBUTING.md',
  ...readdirSync('docs', { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.md'))
    .map((file) => `docs/${file}`),
];

/** Places that a text names in code marks (from the root of the tree), and where its links lead (from the text). */
function placesIn(file: string): string[] {
  // What is fenced is an example, and its links lead where the example lies.
  const text = readFileSync(file, 'utf8').replace(/^```markdown$[\s\S]*?^```$/gm, '');
  const marked = [...text.matchAll(/`([^`\n]+)`/g)]
    .map(([, words]) => words ?? '')
    .filter((words) => PLACES.test(words) && !/\s|NAME|NNNN/.test(words));
  const linked = [...text.matchAll(/\]\(([^)#\s]+)/g)]
    .map(([, to]) => to ?? '')
    .filter((to) => !/^[a-z]+:/.test(to))
    .map((to) => path.join(path.dirname(file), to));
  return [...marked, ...linked];
}

describe.each(DOCS)('%s', (file) => {
  it('names places that exist', () => {
    expect(placesIn(file).filter((place) => !existsSync(place))).toEqual([]);
  });

  it('names every file by its path from the root', () => {
    const text = readFileSync(file, 'utf8');
    const short = [...text.matchAll(/`([\w/.-]+)`/g)]
      .map(([, words]) => words ?? '')
      .filter(
        (words) => FILE.test(words) && words.includes('/') && !existsSync(words) && !words.includes('NAME'),
      );
    expect(short.filter((words) => !words.includes('NNNN'))).toEqual([]);
  });
});

it('where things are changed: at least twelve ways, each with a place to go', () => {
  const text = readFileSync('CONTRIBUTING.md', 'utf8');
  const ways =
    (text.split('## Where do I change …')[1] ?? '').split('\n## ')[0]?.match(/^\| [^|]+ \| [^|]+ \|$/gm) ??
    [];
  expect(ways.length).toBeGreaterThanOrEqual(14);
  for (const way of ways.slice(2)) expect(way).toMatch(/`(src|migrations)[/`]/);
});

it('the architecture tells of every room, in their order, and of every folder of src', () => {
  const text = readFileSync('docs/architecture.md', 'utf8');
  expect(text).toContain(`      ${ROOMS.join(' --- ')}\n`);
  const told = [...text.matchAll(/^\| (`src\/[^|]+) \|/gm)].flatMap(([, places]) =>
    [...(places ?? '').matchAll(/`src\/([a-z]+)`/g)].map(([, folder]) => folder),
  );
  const folders = readdirSync('src', { withFileTypes: true }).filter((entry) => entry.isDirectory());
  expect(new Set(told)).toEqual(new Set(folders.map((folder) => folder.name)));
  expect(told.filter((folder) => ROOMS.some((room) => room === folder))).toEqual([...ROOMS]);
});
