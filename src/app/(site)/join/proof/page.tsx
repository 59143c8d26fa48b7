import type { Metadata } from 'next';
import { LinkButton } from '@/ui/kit/button';

export const metadata: Metadata = { title: 'Look into your mail', robots: { index: false } };

export default function ProofPage() {
  return (
    <div className="mx-auto w-full max-w-xl px-5 py-16">
      <h1 className="text-4xl">Look into your mail</h1>
      <p className="mt-3 text-lg">
        We have sent you a link. Follow it to say that the address is yours; then everything opens.
      </p>
      <p className="mt-3 text-muted">
        Nothing there after a few minutes? Look among the unwanted mail, or join once more and check the
        address.
      </p>
      <LinkButton href="/join" look="quiet" className="mt-6">
        Back to the join page
      </LinkButton>
    </div>
  );
}
