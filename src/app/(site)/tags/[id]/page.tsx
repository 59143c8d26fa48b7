import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { ItemListPage, namesInLists, pageOf } from '@/app/item-pages';
import { searchOf, type Search } from '@/app/search';
import { siteWords } from '@/app/session';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

async function tagOf(params: Props['params']) {
  const { id } = await params;
  // An address comes with what is not ASCII encoded; one that is broken names no tag.
  const sought = /%(?![0-9a-f]{2})/i.test(id) ? id : decodeURIComponent(id);
  return (await namesInLists()).tags.find((tag) => tag.id === sought);
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const tag = await tagOf(params);
  return { title: tag && (await siteWords())('site.tag', { tag: tag.name }) };
}

export default async function TagPage({ params, searchParams }: Props) {
  const tag = await tagOf(params);
  if (!tag) notFound();
  const { page } = await searchOf(searchParams);
  return (
    <ItemListPage
      title={(await siteWords())('site.tag', { tag: tag.name })}
      filter={{ tag: tag.id }}
      page={pageOf(page)}
      at={(n) => `/tags/${encodeURIComponent(tag.id)}?page=${n}`}
    />
  );
}
