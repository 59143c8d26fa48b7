import { spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from '../../scripts/lib/ports';

export type Nginx = { url: string; stop: () => Promise<void> };

/**
 * Starts Debian's nginx with a configuration of the docs, its addresses changed to those of a test. `servers` replaces the
 * lines of its upstream. @param change what else differs
 */
export async function startNginx(
  file: string,
  servers: string[],
  change: (configuration: string, port: number) => string = (same) => same,
): Promise<Nginx> {
  const written = readFileSync(join('docs', 'nginx', file), 'utf8');
  return runNginx((port, folder) =>
    change(
      written
        .replaceAll('/var/cache/nginx', folder)
        .replace(/listen 80;/, `listen 127.0.0.1:${port};`)
        .replace(
          / +server 127\.0\.0\.1:4100;.*/,
          servers.map((url) => `  server ${new URL(url).host};`).join('\n'),
        ),
      port,
    ),
  );
}

/** Starts Debian's nginx with a configuration for a free port, and a folder of its own. */
export async function runNginx(configure: (port: number, folder: string) => string): Promise<Nginx> {
  const port = await freePort(4600);
  const folder = mkdtempSync(join(tmpdir(), 'nest-nginx-'));
  mkdirSync(join(folder, 'logs'));
  const configuration = configure(port, folder);
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi']
    .map((kind) => `${kind}_temp_path ${folder}/${kind};`)
    .join('\n');
  writeFileSync(
    join(folder, 'nginx.conf'),
    `${process.getuid?.() === 0 ? 'user root;' : ''}
daemon off; worker_processes 2; pid ${folder}/pid; error_log ${folder}/logs/error.log;
events { worker_connections 512; }
http { access_log off; ${temporary}
${configuration}
}`,
  );
  const nginx = spawn('/usr/sbin/nginx', ['-p', folder, '-c', join(folder, 'nginx.conf')], {
    stdio: 'inherit',
  });
  const url = `http://127.0.0.1:${port}`;
  const ended = new Promise<void>((resolve) => nginx.once('exit', () => resolve()));
  await untilItAnswers(nginx, url);
  return {
    url,
    stop: async () => {
      nginx.kill('SIGQUIT');
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

async function untilItAnswers(nginx: ChildProcess, url: string): Promise<void> {
  for (let tries = 0; tries < 100 && nginx.exitCode === null; tries++) {
    if (await fetch(url, { redirect: 'manual' }).catch(() => null)) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('nginx does not answer');
}
