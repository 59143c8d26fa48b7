'use client';

import type { ReactNode } from 'react';
import { Button } from './button';

/** Closes the details that it is in, and leads back to what opened them. */
export function CloseDetails({ children }: { children: ReactNode }) {
  return (
    <Button
      look="quiet"
      onClick={(event) => {
        const details = event.currentTarget.closest('details');
        if (!details) return;
        details.open = false;
        details.querySelector('summary')?.focus();
      }}
    >
      {children}
    </Button>
  );
}
