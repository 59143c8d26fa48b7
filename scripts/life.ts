/** Writes docs/subscription-life.md from the table in the core. */
import { writeFileSync } from 'node:fs';
import { lifePage } from '../src/core/subscriptions/diagram';

writeFileSync('docs/subscription-life.md', lifePage());
