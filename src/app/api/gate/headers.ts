/** In which nginx sends what it alone knows. */
export const SECRET_HEADER = 'x-nest-secret';

const NAME = 'nest_outside';
/** On https the cookie of another host belongs to that host alone. */
export const outsideCookie = (isHttps: boolean): string => (isHttps ? `__Host-${NAME}` : NAME);
export const OUTSIDE_COOKIES = [outsideCookie(true), outsideCookie(false)];
