import { feedAs } from '@/app/public-feed';

export const GET = (): Promise<Response> => feedAs('application/rss+xml', (feed) => feed.rss2());
