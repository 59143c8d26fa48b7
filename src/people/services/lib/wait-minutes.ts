/** Whole minutes to wait, for the sentence that says so. */
export const waitMinutes = (seconds: number): number => Math.ceil(seconds / 60);
