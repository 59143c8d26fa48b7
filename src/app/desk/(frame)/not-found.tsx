import { LinkButton } from '@/kit/button';

export default function NotFound() {
  return (
    <div className="max-w-prose py-10">
      <h1 className="text-3xl">Not found</h1>
      <p className="mt-2 text-muted">
        It may have been deleted, or the address may be wrong. Find (Ctrl K) searches everything by name.
      </p>
      <LinkButton href="/desk" className="mt-5">
        To Today
      </LinkButton>
    </div>
  );
}
