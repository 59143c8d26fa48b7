import 'server-only';
import { NotAllowed } from '@/services/actor';
import type { Problems, Result } from '@/services/result';

/** What a form's action answers: problems beside their fields, or a word that it was done. */
export type FormState = { problems: Problems; message?: string };

/** Runs a service for a form. What the person may do something about comes back beside the field. */
export async function forForm<T>(
  work: () => Promise<Result<T>>,
  then: (value: T) => FormState | Promise<FormState>,
): Promise<FormState> {
  try {
    const result = await work();
    return result.ok ? await then(result.value) : { problems: result.problems };
  } catch (error) {
    if (error instanceof NotAllowed) return { problems: { '': error.message } };
    throw error;
  }
}

export const text = (form: FormData, name: string): string => {
  const value = form.get(name);
  return typeof value === 'string' ? value : '';
};

/** What a hidden field carries as JSON; null where it is none. Whoever takes it checks it by a schema. */
export function parseJson(json: string): unknown {
  try {
    return JSON.parse(json);
  } catch {
    return null;
  }
}
