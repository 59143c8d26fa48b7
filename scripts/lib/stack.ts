import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { createWriteStream, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { migrate } from './migrations';
import { freePort } from './ports';
import { startServer, type Server } from './postgres';

export type Environment = Record<string, string>;

/** Processes of one run: started by name, logged to a file each, and all stopped together. */
export class Stack {
  private readonly children = new Map<string, ChildProcess>();
  private readonly cleanUps: (() => unknown)[] = [];
  private stopping = false;
  private stopped: Promise<void> | undefined;
  readonly folder: string;
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
      env: { ...process.env, ...environment },
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

  /** Stops everything, once: whoever asks again waits for the same end. */
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

/** Waits until an address answers at all. @throws after a minute */
export async function untilAnswers(url: string, what: string): Promise<void> {
  const end = Date.now() + 60_000;
  while (Date.now() < end) {
    const answered = await fetch(url, { redirect: 'manual' })
      .then(() => true)
      .catch(() => false);
    if (answered) return;
    await new Promise((resolve) => setTimeout(resolve, 150));
  }
  throw new Error(`${what} did not answer at ${url} within a minute`);
}

const tsx = (file: string, ...args: string[]): string[] => ['--import', 'tsx', file, ...args];
const NEXT = 'node_modules/next/dist/bin/next';

export type Ports = {
  postgres: number;
  web: number;
  gateway: number;
  wallet: number;
  smtp: number;
  letterbox: number;
};
export type Running = {
  server: Server;
  environment: Environment;
  siteUrl: string;
  gatewayUrl: string;
  walletUrl: string;
  letterboxUrl: string;
  webArgs: string[];
  workerArgs: string[];
};

/** Database, stand-ins and the built site, up and answering; the worker and the web are started by the caller. */
export async function prepare(stack: Stack, wanted: Ports, tell: (text: string) => void): Promise<Running> {
  tell('Starting PostgreSQL');
  const server = await startServer(wanted.postgres);
  stack.onStop(() => server.stop());
  const database = `nest_${stack.name}_${process.pid}`;
  await server.createDatabase(database);
  // On a private server this goes with the server; on one that was given, nothing may stay behind.
  stack.onStop(() => server.dropDatabase(database));
  tell('Making the database');
  await migrate(server.url(database));

  const web = await freePort(wanted.web);
  const gateway = await freePort(wanted.gateway);
  const wallet = await freePort(wanted.wallet);
  const smtp = await freePort(wanted.smtp);
  const letterbox = await freePort(wanted.letterbox);
  const siteUrl = `http://127.0.0.1:${web}`;
  const gatewayUrl = `http://127.0.0.1:${gateway}`;
  const walletUrl = `http://127.0.0.1:${wallet}`;
  const letterboxUrl = `http://127.0.0.1:${letterbox}`;
  const environment: Environment = {
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    DATABASE_URL: server.url(database),
    SITE_URL: siteUrl,
    SEALING_KEY: randomBytes(32).toString('hex'),
    SIGNING_KEY: randomBytes(32).toString('hex'),
    NEXT_SERVER_ACTIONS_ENCRYPTION_KEY: randomBytes(32).toString('base64'),
    SMTP_URL: `smtp://127.0.0.1:${smtp}`,
    CURLEW_CARDS_URL: gatewayUrl,
    DUNLIN_WALLET_URL: walletUrl,
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    NEST_BUILD_DIR: join(stack.folder, 'next'),
    NEST_TSCONFIG: buildTsconfig(stack.folder),
  };
  tell('Starting the stand-ins: Curlew Cards, Dunlin Wallet and Letterbox');
  for (const [name, port] of Object.entries({ 'curlew-cards': gateway, 'dunlin-wallet': wallet }))
    stack.start(
      name,
      tsx(`stand-ins/${name}/main.ts`, String(port), join(stack.folder, `${name}.json`)),
      environment,
    );
  stack.start('letterbox', tsx('stand-ins/letterbox/main.ts', String(smtp), String(letterbox)), environment);
  tell('Building the site (under a minute)');
  await Promise.all([
    stack.run('build', [NEXT, 'build'], environment),
    untilAnswers(gatewayUrl, 'Curlew Cards'),
    untilAnswers(walletUrl, 'Dunlin Wallet'),
    untilAnswers(letterboxUrl, 'Letterbox'),
  ]);
  return {
    server,
    environment,
    siteUrl,
    gatewayUrl,
    walletUrl,
    letterboxUrl,
    webArgs: webArgs(web),
    workerArgs: tsx('src/worker/main.ts'),
  };
}

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
