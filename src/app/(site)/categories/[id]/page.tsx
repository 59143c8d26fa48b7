import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { CategoryLinks, ItemListPage, namesInLists, pageOf } from '@/app/item-pages';
import { searchOf, type Search } from '@/app/search';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

async function categoryOf(params: Props['params']) {
  const { id } = await params;
  return (await namesInLists()).categories.find((category) => category.id === id);
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: (await categoryOf(params))?.name };
}

export default async function CategoryPage({ params, searchParams }: Props) {
  const category = await categoryOf(params);
  if (!category) notFound();
  const { page } = await searchOf(searchParams);
  return (
    <ItemListPage
      title={category.name}
      filter={{ category: category.id }}
      page={pageOf(page)}
      at={(n) => `/categories/${category.id}?page=${n}`}
    >
      <CategoryLinks here={category.id} />
    </ItemListPage>
  );
}
