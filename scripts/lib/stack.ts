import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { createWriteStream, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { migrate } from './migrations';
import { freePort } from './ports';
import type { Server } from './postgres';

export type Environment = Record<string, string>;

/** Processes of one run: started by name, logged to a file each, and all stopped together. */
export class Stack {
  private readonly children = new Map<string, ChildProcess>();
  private readonly cleanUps: (() => unknown)[] = [];
  private stopping = false;
  private stopped: Promise<void> | undefined;
  readonly folder: string;
  /** What every server of this run answers with, so that no other program is taken for one of them. */
  readonly token = randomBytes(16).toString('hex');
  /** Called when a process ends that nobody stopped. */
  onLost: (name: string) => void = () => {};

  constructor(readonly name: string) {
    this.folder = join('.data', `${name}-${process.pid}`);
    mkdirSync(join(this.folder, 'logs'), { recursive: true });
    this.cleanUps.push(() => rmSync(this.folder, { recursive: true, force: true }));
  }

  logFile(process: string): string {
    return join(this.folder, 'logs', `${process}.log`);
  }

  start(name: string, args: string[], environment: Environment): ChildProcess {
    const log = createWriteStream(this.logFile(name), { flags: 'a' });
    // A group of its own: a Ctrl+C at the terminal reaches this process first, which then stops them in order.
    const child = spawn(process.execPath, args, {
      env: { ...process.env, ...environment, RUN_TOKEN: this.token },
      stdio: ['ignore', 'pipe', 'pipe'],
      detached: true,
    });
    child.stdout.pipe(log, { end: false });
    child.stderr.pipe(log, { end: false });
    this.children.set(name, child);
    child.once('exit', () => {
      const wasOurs = this.children.get(name) === child;
      if (wasOurs) this.children.delete(name);
      if (wasOurs && !this.stopping) this.onLost(name);
    });
    return child;
  }

  /** Runs a program to its end. @throws where it fails, with the place of its log */
  async run(name: string, args: string[], environment: Environment): Promise<void> {
    const child = this.start(name, args, environment);
    const lost = this.onLost;
    this.onLost = (other) => other !== name && lost(other);
    const code = await new Promise<number | null>((resolve) => child.once('exit', resolve));
    this.onLost = lost;
    if (code !== 0) throw new Error(`${name} failed; see ${this.logFile(name)}`);
  }

  /** A stand-in gateway, answering. @returns its address */
  async standIn(name: 'curlew-cards' | 'dunlin-wallet', wantedPort: number): Promise<string> {
    const port = await freePort(wantedPort);
    this.start(name, tsx(`stand-ins/${name}/main.ts`, String(port), join(this.folder, `${name}.json`)), {});
    return this.untilAnswers(port, name);
  }

  /** The stand-in for a mail server, answering. @returns the addresses of its mail and of its page */
  async letterbox(
    wantedSmtp: number,
    wantedPage: number,
  ): Promise<{ smtpUrl: string; letterboxUrl: string }> {
    const [smtp, page] = [await freePort(wantedSmtp), await freePort(wantedPage)];
    this.start('letterbox', tsx('stand-ins/letterbox/main.ts', String(smtp), String(page)), {});
    return { smtpUrl: `smtp://127.0.0.1:${smtp}`, letterboxUrl: await this.untilAnswers(page, 'Letterbox') };
  }

  /**
   * Waits until a server of this run answers on a port. @returns its address
   * @throws after a minute, or at once where another program answers
   */
  async untilAnswers(port: number, what: string, path = '/'): Promise<string> {
    const url = `http://127.0.0.1:${port}`;
    const end = Date.now() + 60_000;
    while (Date.now() < end) {
      const token = await fetch(url + path, { redirect: 'manual' })
        .then((answered) => answered.headers.get('x-run-token') ?? '')
        .catch(() => null);
      if (token === this.token) return url;
      if (token !== null)
        throw new Error(`Another program answers at ${url}, where ${what} was to be. Run this again.`);
      await new Promise((resolve) => setTimeout(resolve, 150));
    }
    throw new Error(`${what} did not answer at ${url} within a minute`);
  }

  /** Ends one process at once, as a crash would. */
  async kill(name: string): Promise<void> {
    const child = this.children.get(name);
    if (!child) return;
    this.children.delete(name);
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await gone;
  }

  onStop(cleanUp: () => unknown): void {
    this.cleanUps.push(cleanUp);
  }

  /** Stops everything, once; a second call waits for the first. */
  stop(): Promise<void> {
    this.stopped ??= this.stopAll();
    return this.stopped;
  }

  private async stopAll(): Promise<void> {
    this.stopping = true;
    const running = [...this.children.values()].filter(
      (child) => child.exitCode === null && child.signalCode === null,
    );
    await Promise.all(
      running.map(
        (child) =>
          new Promise<void>((resolve) => {
            const force = setTimeout(() => child.kill('SIGKILL'), 4000);
            child.once('exit', () => {
              clearTimeout(force);
              resolve();
            });
            child.kill('SIGTERM');
          }),
      ),
    );
    for (const cleanUp of this.cleanUps.reverse()) {
      // One that fails must not keep the others from being done.
      await Promise.resolve(cleanUp()).catch((error: unknown) => console.error(String(error)));
    }
  }
}

export const tsx = (file: string, ...args: string[]): string[] => ['--import', 'tsx', file, ...args];
export const NEXT = 'node_modules/next/dist/bin/next';

export type Ports = { web: number; gateway: number; wallet: number; smtp: number; letterbox: number };
export type Running = {
  environment: Environment;
  siteUrl: string;
  gatewayUrl: string;
  walletUrl: string;
  letterboxUrl: string;
  webPort: number;
};

/** Builds the site into the folder of a run. @returns the environment by which its web finds the build */
export async function build(stack: Stack): Promise<Environment> {
  const environment: Environment = {
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    NEXT_SERVER_ACTIONS_ENCRYPTION_KEY: randomBytes(32).toString('base64'),
    NEST_BUILD_DIR: join(stack.folder, 'next'),
    NEST_TSCONFIG: buildTsconfig(stack.folder),
  };
  await stack.run('build', [NEXT, 'build'], environment);
  return environment;
}

/** A database and stand-ins for one site, up and answering; its web and its worker are started by the caller. */
export async function prepare(
  stack: Stack,
  server: Server,
  wanted: Ports,
  template?: string,
): Promise<Running> {
  const database = `nest_${stack.name.replaceAll('-', '_')}_${process.pid}`;
  await server.createDatabase(database, template);
  // On a private server this goes with the server; on one that was given, nothing may stay behind.
  stack.onStop(() => server.dropDatabase(database));
  if (!template) await migrate(server.url(database));
  const [gatewayUrl, walletUrl, { smtpUrl, letterboxUrl }] = await Promise.all([
    stack.standIn('curlew-cards', wanted.gateway),
    stack.standIn('dunlin-wallet', wanted.wallet),
    stack.letterbox(wanted.smtp, wanted.letterbox),
  ]);
  const webPort = await freePort(wanted.web);
  const siteUrl = `http://127.0.0.1:${webPort}`;
  const environment: Environment = {
    DATABASE_URL: server.url(database),
    SITE_URL: siteUrl,
    SEALING_KEY: randomBytes(32).toString('hex'),
    SIGNING_KEY: randomBytes(32).toString('hex'),
    SMTP_URL: smtpUrl,
    WEBHOOKS_TO_OWN_MACHINE: 'yes',
    CURLEW_CARDS_URL: gatewayUrl,
    DUNLIN_WALLET_URL: walletUrl,
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
  };
  return { environment, siteUrl, gatewayUrl, walletUrl, letterboxUrl, webPort };
}

export const WORKER_ARGS = tsx('src/worker/main.ts');
export const webArgs = (port: number): string[] => tsx('src/web/main.ts', '--port', String(port));

/** The build adds its own folders to the tsconfig it is given; it gets one of its own to do that to. */
function buildTsconfig(folder: string): string {
  const file = join(folder, 'tsconfig.json');
  const root = relative(folder, '.');
  writeFileSync(
    file,
    JSON.stringify({
      extends: `${root}/tsconfig.json`,
      include: [`${root}/src/**/*.ts`, `${root}/src/**/*.tsx`],
    }),
  );
  return file;
}

/** Stops the stack on Ctrl+C, on termination, and when the command that started this process is gone. */
export function stopWith(stack: Stack): void {
  let asked = false;
  const end = (code: number): void => {
    if (asked) return;
    asked = true;
    void stack.stop().then(() => process.exit(code));
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
    process.on(signal, () => end(signal === 'SIGINT' ? 0 : 1));
  const parent = process.ppid;
  setInterval(() => process.ppid !== parent && end(1), 1000).unref();
}
