import { z } from 'zod';
import { loadEnvironment } from './environment';

const key = z
  .string('is missing: 32 random bytes in hexadecimal')
  .regex(/^[0-9a-f]{64}$/, 'must be 64 hexadecimal digits (32 random bytes)');
/** Keys that were replaced and are still to be read by, separated by commas. */
const oldKeys = z
  .string()
  .default('')
  .transform((text) => text.split(',').filter(Boolean))
  .pipe(z.array(key));

/**
 * Everything that the environment decides, read and checked once. Nothing else reads process.env.
 * A missing or wrong value stops the start with a sentence that names it.
 */
const schema = z.object({
  DATABASE_URL: z
    .string('is missing: the address of a PostgreSQL 15 or newer')
    .regex(/^postgres(ql)?:\/\//, 'must begin with postgres://'),
  SITE_URL: z.url('must be the public address of the site, like https://club.example'),
  PORT: z.coerce.number('must be a port, like 3000').int().min(1).max(65_535).default(3000),
  SEALING_KEY: key,
  SIGNING_KEY: key,
  SEALING_KEYS_OLD: oldKeys,
  SIGNING_KEYS_OLD: oldKeys,
  TRUSTED_PROXIES: z.coerce.number('must be a number of proxies').int().min(0).max(10).default(0),
  SMTP_URL: z
    .string('is missing: the address of the mail server')
    .regex(/^smtps?:\/\//, 'must begin with smtp:// or smtps://'),
  CURLEW_CARDS_URL: z.url('must be the address of the Curlew Cards gateway'),
  DUNLIN_WALLET_URL: z.url('must be the address of the Dunlin Wallet gateway'),
  LEASE_SECONDS: z.coerce.number('must be a number of seconds').int().min(1).max(3600).default(30),
  /** Whether webhooks may go to addresses of this machine and its network; for trying them out. */
  WEBHOOKS_TO_OWN_MACHINE: z.enum(['yes', 'no'], 'must be yes or no').default('no'),
  /** Set by the demo and the tests, which know their own site by it. */
  RUN_TOKEN: z.string().optional(),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
});

export type Config = z.infer<typeof schema>;

export class ConfigError extends Error {}

export function parseConfig(environment: Record<string, string | undefined>): Config {
  const parsed = schema.safeParse(environment);
  if (parsed.success) return parsed.data;
  const lines = parsed.error.issues.map((issue) => `  ${issue.path.join('.')} ${issue.message}`);
  throw new ConfigError(
    `Nest Key cannot start. In the environment:\n${lines.join('\n')}\nSee .env.example for what each value is.`,
  );
}

let cached: Config | undefined;

export function config(): Config {
  cached ??= parseConfig(process.env);
  return cached;
}

/** For programs: the configuration, with what `.env` says, or an end of the process with the sentence on standard error. */
export function configOrExit(): Config {
  loadEnvironment();
  try {
    return config();
  } catch (error) {
    if (!(error instanceof ConfigError)) throw error;
    console.error(error.message);
    process.exit(1);
  }
}
