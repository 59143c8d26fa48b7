'use client';

import { Button } from './button';

export function PrintButton() {
  return (
    <Button look="quiet" onClick={() => window.print()}>
      Print
    </Button>
  );
}
