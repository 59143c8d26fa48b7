import { Lock } from 'lucide-react';
import Link from 'next/link';
import { formatDate, type Instant } from '@/core/instants';

type Post = {
  id: string;
  path: string;
  title: string;
  summary: string;
  publishedAt: Instant | null;
  categories: string[];
  isOpen: boolean;
};

export function PostList({
  posts,
  zone,
  names,
}: {
  posts: Post[];
  zone: string;
  names: Map<string, string>;
}) {
  return (
    <ul className="mt-4 divide-y divide-line">
      {posts.map((post) => (
        <li key={post.id} className="py-5">
          <p className="text-[0.9375rem] text-muted">
            {[
              ...post.categories.map((id) => names.get(id) ?? id),
              post.publishedAt && formatDate(post.publishedAt, zone),
            ]
              .filter(Boolean)
              .join(' · ')}
          </p>
          <h3 className="mt-0.5 text-xl">
            <Link href={post.path} prefetch={false} className="hover:underline">
              {post.title}
            </Link>
            {!post.isOpen && <Lock className="ml-2 inline size-4 text-closed" aria-label="for members" />}
          </h3>
          {post.summary && <p className="mt-1 text-muted">{post.summary}</p>}
        </li>
      ))}
    </ul>
  );
}
