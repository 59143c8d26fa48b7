import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:http';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { freePort } from './ports';
import { Stack } from './stack';

const WANTED = 4810;
const endings: (() => unknown)[] = [];
afterEach(async () => {
  for (const end of endings.splice(0)) await end();
});

/** Another run that chooses a port, says which, and lives until it is ended. */
async function otherRun(): Promise<number> {
  const program = `import('./scripts/lib/ports.ts').then(async ({ freePort }) => {
    console.log(await freePort(${WANTED}));
    setInterval(() => {}, 1000);
  });`;
  const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', program]);
  endings.push(() => {
    const ended = once(child, 'exit');
    child.kill();
    return ended;
  });
  const [said] = (await once(child.stdout, 'data')) as [Buffer];
  return Number(said);
}

async function otherProgram(port: number): Promise<void> {
  const server = createServer((_, response) => response.end('Something else.'));
  endings.push(() => new Promise((resolve) => server.close(resolve)));
  server.listen(port, '127.0.0.1');
  await once(server, 'listening');
}

describe('a port for this run alone', () => {
  it('four runs that begin at once choose four ports, before any of them is in use', async () => {
    const chosen = await Promise.all([otherRun(), otherRun(), otherRun(), otherRun()]);
    expect(new Set(chosen).size).toBe(4);
    expect(chosen.every((port) => port >= WANTED && port < WANTED + 500)).toBe(true);
  });

  it('is free again once its run has ended, and passes over the port of another program', async () => {
    const first = await otherRun();
    for (const end of endings.splice(0)) await end();
    expect(await otherRun()).toBe(first);
    for (const end of endings.splice(0)) await end();
    await otherProgram(first);
    expect(await freePort(WANTED)).toBeGreaterThan(first);
  });
});

describe('a run knows its own servers', () => {
  const stack = new Stack('ports-test');
  afterAll(() => stack.stop());

  it('by what they answer: another program on the port is not taken for the site', async () => {
    const port = await freePort(WANTED + 50);
    await otherProgram(port);
    await expect(stack.untilAnswers(port, 'The site')).rejects.toThrow(/Another program answers/);
    const url = await stack.standIn('curlew-cards', WANTED + 50);
    expect(url).not.toContain(`:${port}`);
  });
});
