/** The wanted id, or the first with a number behind it that is free. */
export function freeId(wanted: string, taken: Set<string>): string {
  if (!taken.has(wanted)) return wanted;
  for (let n = 2; ; n++) if (!taken.has(`${wanted}-${n}`)) return `${wanted}-${n}`;
}

/** The message on a version conflict: someone else saved in the meantime. */
export const SAVED_ELSEWHERE =
  'This was saved in another window in the meantime. Open it there or in a new one, copy over what you need, and save again.';
