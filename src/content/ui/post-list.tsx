import { Lock } from 'lucide-react';
import Link from 'next/link';
import type { Instant } from '@/core/instants';
import type { Words } from '@/words/speak';

type Post = {
  id: string;
  path: string;
  title: string;
  summary: string;
  publishedAt: Instant | null;
  categories: string[];
  isOpen: boolean;
};

export function PostList({ posts, t, names }: { posts: Post[]; t: Words; names: Map<string, string> }) {
  return (
    <ul className="mt-4 divide-y divide-line">
      {posts.map((post) => (
        <li key={post.id} className="py-5">
          <p className="text-[0.9375rem] text-muted">
            {[
              ...post.categories.map((id) => names.get(id) ?? id),
              post.publishedAt && t.date(post.publishedAt),
            ]
              .filter(Boolean)
              .join(' · ')}
          </p>
          <h3 className="mt-0.5 text-xl">
            <Link href={post.path} prefetch={false} className="hover:underline">
              {post.title}
            </Link>
            {!post.isOpen && (
              <Lock className="ml-2 inline size-4 text-closed" aria-label={t('site.closed')} />
            )}
          </h3>
          {post.summary && <p className="mt-1 text-muted">{post.summary}</p>}
        </li>
      ))}
    </ul>
  );
}
