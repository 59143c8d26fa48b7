import { isPathHere } from '@/core/addresses';

/** Only an address on this site; anything else becomes the front page. */
export const safeReturn = (path: string): string => (isPathHere(path) ? path : '/');
