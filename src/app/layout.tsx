import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { currentSite, currentTheme, isInDesk } from './session';
import './globals.css';

export const metadata: Metadata = { title: 'Nest Key' };

/** What most of the site is read in; plain English before there is a site. */
async function language(): Promise<string> {
  try {
    return (await currentSite()).language;
  } catch {
    return 'en-GB';
  }
}

/** Light or dark, where a reader chose, or the owner did for the site; undefined for what the device asks. */
async function scheme(): Promise<string | undefined> {
  const chosen = await currentTheme();
  if (chosen || (await isInDesk())) return chosen;
  try {
    const { scheme: owners } = (await currentSite()).theme;
    return owners === 'both' ? undefined : owners;
  } catch {
    return undefined;
  }
}

export default async function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang={await language()} data-theme={await scheme()}>
      <body className="min-h-dvh antialiased">{children}</body>
    </html>
  );
}
