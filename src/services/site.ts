import { pool } from '@/store/db';
import { findSite, type Site } from '@/store/site';

export class NotSetUp extends Error {
  constructor() {
    super('This site has not been set up yet. Run “npm run create-site”, then sign in at /desk.');
  }
}

/** The site. @throws NotSetUp before it exists */
export async function currentSite(): Promise<Site> {
  const site = await findSite(pool());
  if (!site) throw new NotSetUp();
  return site;
}
