/** The least characters of a password. */
export const MIN_PASSWORD = 10;
