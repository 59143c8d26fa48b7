'use client';

import { Button } from './button';

export function PrintButton({ label }: { label: string }) {
  return (
    <Button look="quiet" onClick={() => window.print()}>
      {label}
    </Button>
  );
}
