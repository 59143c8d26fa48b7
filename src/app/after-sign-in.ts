/** Where someone comes to once they have shown a password or a mailed code: to what they wanted, by way of their one-time code. */
export const afterSignIn = (needsCode: boolean, to: string): string =>
  needsCode ? `/sign-in/one-time?to=${encodeURIComponent(to)}` : to;
