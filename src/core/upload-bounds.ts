/** The most bytes of a picture, and of a bank statement, that are read. */
export const MOST_PICTURE_BYTES = 8_000_000;
export const MOST_STATEMENT_BYTES = 2_000_000;
