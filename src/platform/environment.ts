import nextEnv from '@next/env';

/** Reads `.env` and its variants as Next does; what is in the environment already wins. For programs, before they read it. */
export function loadEnvironment(folder = process.cwd()): void {
  nextEnv.loadEnvConfig(folder, false, { info: () => {}, error: console.error });
}
