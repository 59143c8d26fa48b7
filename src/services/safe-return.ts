/** Only an address on this site; anything else becomes the front page. */
export function safeReturn(path: string): string {
  return /^\/(?![/\\])[^\s\\]*$/.test(path) ? path : '/';
}
