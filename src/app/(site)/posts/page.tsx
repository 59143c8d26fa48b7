import type { Metadata } from 'next';
import Link from 'next/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, currentSite, shown } from '@/app/session';
import { categoryNames, listItems } from '@/access/services/view-item';
import { Empty } from '@/kit/empty';
import { PostList } from '@/content/ui/post-list';

export const metadata: Metadata = { title: 'Posts' };

export default async function PostsPage({ searchParams }: { searchParams: Search }) {
  const { category } = await searchOf(searchParams);
  const actor = await currentActor();
  const [site, names] = [await currentSite(), await shown(categoryNames(actor))];
  const posts = await shown(listItems(actor, { type: 'post', category: category?.slice(0, 200) }));
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
