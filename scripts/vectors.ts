/** Runs every worked example in the JSON files of a folder: `npm run -s vectors -- FOLDER`. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { expected, runCase, type VectorCase } from '../src/core/vectors/run-case';

const folder = process.argv[2] ?? 'src/core/vectors';
let passed = 0;
let failed = 0;
for (const file of readdirSync(folder, { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('.json'))
  .sort()) {
  const cases = JSON.parse(readFileSync(join(folder, file), 'utf8')) as VectorCase[];
  for (const example of cases) {
    let got: unknown;
    try {
      got = runCase(example);
    } catch (error) {
      got = String(error);
    }
    if (isDeepStrictEqual(got, expected(example))) {
      passed += 1;
    } else {
      failed += 1;
      console.log(
        `${file}: ${example.name}\n  expected ${JSON.stringify(expected(example))}\n  got      ${JSON.stringify(got)}`,
      );
    }
  }
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 || passed === 0 ? 1 : 0);
