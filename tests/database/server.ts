import type { TestProject } from 'vitest/node';
import { migrate } from '../../scripts/lib/migrations';
import { startServer } from '../../scripts/lib/postgres';

declare module 'vitest' {
  interface ProvidedContext {
    adminUrl: string;
    template: string;
  }
}

/** One server and one migrated template for all database tests; each file gets a database of its own. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const server = await startServer(5470);
  const template = `nest_template_${process.pid}`;
  await server.createDatabase(template);
  await migrate(server.url(template));
  project.provide('adminUrl', server.adminUrl);
  project.provide('template', template);
  return async () => {
    await server.dropDatabase(template);
    server.stop();
  };
}
