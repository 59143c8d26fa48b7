import type { TestProject } from 'vitest/node';
import { migrate } from '../../scripts/lib/migrations';
import { startServer } from '../../scripts/lib/postgres';
import { loadContent, loadEmptySite } from '../../scripts/lib/load-demo';
import { realNow } from '../../src/platform/clock';
import { closePools } from '../../src/platform/store/db';
import { environment } from '../lib/environment';

declare module 'vitest' {
  interface ProvidedContext {
    adminUrl: string;
    template: string;
    ownerId: string;
  }
}

/** Nothing of the content asks a gateway. */
const NOWHERE = { gatewayUrl: 'http://127.0.0.1:9', walletUrl: 'http://127.0.0.1:9' };

/** One server for all database tests, and one site with the content of Lantern Moor, of which each file gets a copy. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const server = await startServer(5470);
  const template = `nest_template_${process.pid}`;
  await server.createDatabase(template);
  await migrate(server.url(template));
  Object.assign(process.env, environment({ databaseUrl: server.url(template), ...NOWHERE }));
  const { memberId } = await loadEmptySite();
  await loadContent(realNow());
  await closePools();
  project.provide('adminUrl', server.adminUrl);
  project.provide('template', template);
  project.provide('ownerId', memberId ?? '');
  return async () => {
    await server.dropDatabase(template);
    server.stop();
  };
}
