import type { Metadata } from 'next';
import Link from 'next/link';
import { currentViewer } from '@/app/session';
import { currentSite } from '@/services/site';
import { categoryNames, listItemsFor } from '@/services/view-item';
import { Empty } from '@/ui/kit/empty';
import { PostList } from '@/ui/site/post-list';

export const metadata: Metadata = { title: 'Posts' };

export default async function PostsPage({ searchParams }: { searchParams: Promise<{ category?: string }> }) {
  const { category } = await searchParams;
  const [site, names, viewer] = [await currentSite(), await categoryNames(), await currentViewer()];
  const posts = await listItemsFor(viewer.person, { type: 'post', category });
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl">{(category && names.get(category)) ?? 'Posts'}</h1>
      <nav aria-label="Categories" className="mt-4">
        <ul className="flex flex-wrap gap-x-4 gap-y-1">
          {[['', 'All'] as const, ...names].map(([id, name]) => (
            <li key={id}>
              <Link
                href={id ? `/posts?category=${id}` : '/posts'}
                aria-current={(category ?? '') === id ? 'page' : undefined}
                className="underline-offset-4 hover:underline aria-[current]:font-semibold aria-[current]:underline"
              >
                {name}
              </Link>
            </li>
          ))}
        </ul>
      </nav>
      {posts.length > 0 ? (
        <PostList posts={posts} zone={site.zone} names={names} />
      ) : (
        <div className="mt-8">
          <Empty title="Nothing here yet">Posts stand here once they are published.</Empty>
        </div>
      )}
    </div>
  );
}
