/** What was given, without what was left out: in a change, a field that is absent keeps what it was. */
export function given<T extends object>(input: T): { [K in keyof T]: Exclude<T[K], undefined> } {
  return Object.fromEntries(Object.entries(input).filter(([, value]) => value !== undefined)) as never;
}
