import { LinkButton } from '@/ui/kit/button';

export default function NotFound() {
  return (
    <div className="max-w-prose py-10">
      <h1 className="text-3xl">This no longer exists</h1>
      <p className="mt-2 text-muted">
        Somebody may have deleted it, or the address has a slip in it. Find (Ctrl K) knows everything by name.
      </p>
      <LinkButton href="/desk" className="mt-5">
        To Today
      </LinkButton>
    </div>
  );
}
