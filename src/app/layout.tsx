import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import './globals.css';

export const metadata: Metadata = { title: 'Nest Key' };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const theme = (await cookies()).get('theme')?.value;
  return (
    <html lang="en-GB" data-theme={theme === 'light' || theme === 'dark' ? theme : undefined}>
      <body className="min-h-dvh antialiased">{children}</body>
    </html>
  );
}
