import { config } from './config';

export const isHttps = (): boolean => config().SITE_URL.startsWith('https:');

/** On https a cookie belongs to this host alone, and no plain page can set it: RFC 6265bis, the __Host- prefix. */
export const cookieName = (name: string): string => `${isHttps() ? '__Host-' : ''}nest_${name}`;
