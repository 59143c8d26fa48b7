import { LinkButton } from '@/kit/button';

export default function NotFound() {
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-16">
      <h1 className="text-4xl">Page not found</h1>
      <p className="mt-3 text-lg text-muted">The page may have moved, or the link may be wrong.</p>
      <div className="mt-6 flex flex-wrap gap-3">
        <LinkButton href="/">To the front page</LinkButton>
        <LinkButton href="/posts" look="quiet">
          All posts
        </LinkButton>
      </div>
    </div>
  );
}
