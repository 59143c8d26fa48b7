/** Writes docs/subscription-life.md from the tables in the core. */
import { writeFileSync } from 'node:fs';
import { lifePage } from '../src/core/billing/life-page';

writeFileSync('docs/subscription-life.md', lifePage());
