import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { currentMember } from '@/app/session';
import { isCountry } from '@/services/countries';
import { prepareJoining } from '@/services/prepare-joining';
import { safeReturn } from '@/services/safe-return';
import { Checkout } from '../checkout';

type Props = {
  params: Promise<{ offerId: string }>;
  searchParams: Promise<{ to?: string; country?: string; mode?: string }>;
};

export const metadata: Metadata = { title: 'Join', robots: { index: false } };

export default async function CheckoutPage({ params, searchParams }: Props) {
  const [{ offerId }, { to, country = '', mode }] = [await params, await searchParams];
  const member = await currentMember();
  const prepared = await prepareJoining(
    offerId,
    member,
    undefined,
    isCountry(country) ? country : undefined,
    mode === 'test' && member?.staffRole ? 'test' : '',
  );
  if (!prepared) notFound();
  return <Checkout prepared={prepared} member={member} returnTo={safeReturn(to ?? '/account')} />;
}
