import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { currentTheme } from './session';
import './globals.css';

export const metadata: Metadata = { title: 'Nest Key' };

export default async function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en-GB" data-theme={await currentTheme()}>
      <body className="min-h-dvh antialiased">{children}</body>
    </html>
  );
}
