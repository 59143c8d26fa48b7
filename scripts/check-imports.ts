/** Holds the tree against the order of its rooms. */
import { filesIn, importBreaches, sqlBreaches } from './lib/rooms';

const { breaches, read } = await importBreaches();
const all = [...breaches, ...sqlBreaches()];
const present = filesIn('src').filter((file) => /\.tsx?$/.test(file) && !file.endsWith('.d.ts')).length;
for (const breach of all) console.error(breach);
if (read < present) console.error(`Only ${read} of ${present} files were read: the check cannot be trusted.`);
if (all.length > 0 || read < present) process.exit(1);
console.log(`Rooms: ${read} modules, none against the order.`);
