import type { ReactNode } from 'react';
import { Picture, type PictureOf } from './picture';

type Props = { title: string; summary: string; picture: PictureOf | null; children: ReactNode };

/** The head of the front page: its title and summary on the night band, over its picture where it has one; hills below. */
export function FrontHero({ title, summary, picture, children }: Props) {
  return (
    <section className="front-hero relative overflow-hidden bg-night text-on-night">
      {picture && (
        <>
          <Picture
            picture={picture}
            sizes="100vw"
            isFirst
            className="absolute inset-0 size-full object-cover object-bottom"
          />
          {/* Words stay readable on whatever the picture shows. */}
          <div
            className="absolute inset-0 bg-gradient-to-r from-night/80 via-night/45 to-night/10"
            aria-hidden
          />
        </>
      )}
      <div className="relative mx-auto w-full max-w-6xl px-5 pt-32 pb-24 sm:pt-32 sm:pb-32">
        <h1 className="max-w-2xl text-5xl leading-[1.1] sm:text-6xl">{title}</h1>
        {summary && <p className="mt-6 max-w-2xl text-xl leading-relaxed">{summary}</p>}
        <div className="mt-8 flex flex-wrap gap-3">{children}</div>
      </div>
      <svg
        viewBox="0 0 1280 72"
        preserveAspectRatio="none"
        className="absolute inset-x-0 bottom-0 block h-10 w-full sm:h-16"
        aria-hidden
      >
        <path
          fill="var(--color-paper)"
          d="M0 72V62l142-42 142-3 142 12 142-15 148 8 142 14 140 22 118 6 162 8 142-26v66z"
        />
      </svg>
    </section>
  );
}
