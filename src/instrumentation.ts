/** Runs once before the first request: a wrong environment stops the start with a sentence. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { configOrExit } = await import('./config');
  configOrExit();
}
