'use client';

import { useEffect } from 'react';

const WAIT_MS = 4000;

/** Looks again after a moment whether what is waited for has come. */
export function AskAgain({ path }: { path: string }) {
  useEffect(() => {
    const timer = setTimeout(() => window.location.replace(path), WAIT_MS);
    return () => clearTimeout(timer);
  }, [path]);
  return null;
}
