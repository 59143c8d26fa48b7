/** What a page of the owner's can serve as. */
export const PAGE_ROLES = [
  'room',
  'join',
  'sign-in',
  'account',
  'thanks',
  'not-found',
  'privacy',
  'terms',
] as const;
export type PageRole = (typeof PAGE_ROLES)[number];

/** Pages that a site has from the start, and gets again where they are gone: the law asks for them. */
export const LEGAL_ROLES = ['privacy', 'terms'] as const satisfies PageRole[];
export type LegalRole = (typeof LEGAL_ROLES)[number];

/** Pages that the site itself needs: people join, sign in and read the terms by them, so no rule closes them. */
export const SYSTEM_ROLES = [
  'join',
  'sign-in',
  'account',
  'thanks',
  'not-found',
  'privacy',
  'terms',
] as const satisfies PageRole[];

/** What can be put into a text that the product itself shows. */
export const PANELS = ['sign-in', 'account', 'room', 'search', 'latest'] as const;
export type Panel = (typeof PANELS)[number];
