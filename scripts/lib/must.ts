import type { Result } from '../../src/platform/result';

/** What a use case answered. @throws where it refused */
export function must<T>(result: Result<T>, what: string): T {
  if (!result.ok) throw new Error(`${what}: ${JSON.stringify(result.problems)}`);
  return result.value;
}
