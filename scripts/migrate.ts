/** npm run migrate: brings the database of DATABASE_URL up to date. */
import { configOrExit } from '../src/platform/config';
import { migrate } from './lib/migrations';

const count = await migrate(configOrExit().DATABASE_URL);
console.log(count === 0 ? 'The database is up to date.' : `${count} migrations done.`);
