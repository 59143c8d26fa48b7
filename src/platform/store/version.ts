import { one, prepared, type Db } from './db';

const FIND_VERSION = prepared('find-site-version', 'SELECT n FROM site_version');

/** How often what is the same for all who ask has changed: it rises with each change, as it commits. */
export async function findVersion(db: Db): Promise<bigint> {
  return (await one<{ n: bigint }>(db, FIND_VERSION)).n;
}
