/** The look of the buttons in the strip. */
export const stripButton =
  'inline-flex min-h-9 items-center gap-2 rounded-md border border-on-night/30 px-3 py-1 text-sm text-on-night hover:border-on-night';

export const panel =
  'z-30 rounded-lg border border-line bg-surface p-2 text-ink shadow-xl shadow-black/20 [--anchor-gap:0.4rem] focus:outline-none';
