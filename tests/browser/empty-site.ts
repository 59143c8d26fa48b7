/** The owner and a site with nothing in it, in the database of the environment; what the browser suite begins with. */
import { loadEmptySite } from '../../scripts/lib/load-demo';
import { closePools } from '../../src/platform/store/db';

await loadEmptySite();
await closePools();
