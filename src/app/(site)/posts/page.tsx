import type { Metadata } from 'next';
import Link from 'next/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, shown, siteWords } from '@/app/session';
import { categoryNames, listItems } from '@/access/services/view-item';
import { Empty } from '@/kit/empty';
import { PostList } from '@/content/ui/post-list';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('site.posts'),
});

export default async function PostsPage({ searchParams }: { searchParams: Search }) {
  const { category } = await searchOf(searchParams);
  const actor = await currentActor();
  const [t, names] = [await siteWords(), await shown(categoryNames(actor))];
  const posts = await shown(listItems(actor, { type: 'post', category: category?.slice(0, 200) }));
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl">{(category && names.get(category)) ?? t('site.posts')}</h1>
      <nav aria-label={t('site.categories')} className="mt-4">
        <ul className="flex flex-wrap gap-x-4 gap-y-1">
          {[['', t('site.all')] as const, ...names].map(([id, name]) => (
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
        <PostList posts={posts} t={t} names={names} />
      ) : (
        <div className="mt-8">
          <Empty title={t('site.no-posts')}>{t('site.no-posts-hint')}</Empty>
        </div>
      )}
    </div>
  );
}
