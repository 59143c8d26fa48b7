/** The most bytes of a picture, and of a bank statement, that are read. */
export const MOST_PICTURE_BYTES = 8_000_000;
export const MOST_STATEMENT_BYTES = 2_000_000;
/** The most bytes of a draft of the map: 500 painted cells. */
export const MOST_DRAFT_BYTES = 250_000;
/** The most bytes of a file of the site, and of each piece in which it is sent. */
export const MOST_FILE_BYTES = 1_000_000_000;
export const PIECE_BYTES = 1_048_576;
