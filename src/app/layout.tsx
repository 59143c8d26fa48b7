import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { currentSite, currentTheme } from './session';
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

export default async function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang={await language()} data-theme={await currentTheme()}>
      <body className="min-h-dvh antialiased">{children}</body>
    </html>
  );
}
