import type { ReactNode } from 'react';
import { requireStaff } from '@/app/session';
import { SettingsFrame } from '@/desk/ui/settings-frame';

export default async function SettingsLayout({ children }: { children: ReactNode }) {
  // Each page asks again: a layout never authorises.
  const { may } = await requireStaff();
  if (!may('change settings')) return children;
  return <SettingsFrame isOwner={may('set up the site')}>{children}</SettingsFrame>;
}
