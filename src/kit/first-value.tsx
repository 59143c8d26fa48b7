'use client';

import { useState } from 'react';

/** A hidden field that stays what it was when its page was opened, however often the page is refreshed. */
export function FirstValue({ name, value }: { name: string; value: string }) {
  const [first] = useState(value);
  return <input type="hidden" name={name} value={first} />;
}
