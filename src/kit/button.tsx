import clsx from 'clsx';
import { Link } from '@/kit/link';
import type { ButtonHTMLAttributes, ReactNode } from 'react';

export type Look = 'main' | 'quiet' | 'lamp' | 'night' | 'bad' | 'text';

const LOOKS: Record<Look, string> = {
  main: 'bg-spruce text-on-spruce hover:bg-spruce-deep',
  quiet: 'border border-edge/60 bg-surface text-ink hover:border-ink',
  lamp: 'bg-lamp text-[#1c2a2e] hover:bg-[#edc169]',
  night: 'border border-on-night/35 text-on-night hover:border-on-night',
  text: '!min-h-0 !p-0 text-spruce underline underline-offset-2',
  bad: 'border border-closed/60 bg-surface text-closed hover:border-closed',
};

export function buttonClass(look: Look, className?: string): string {
  return clsx(
    'inline-flex min-h-10 items-center justify-center gap-2 rounded-lg px-4 py-2 text-[0.9375rem] leading-tight font-semibold transition-colors disabled:opacity-60 disabled:cursor-progress',
    LOOKS[look],
    className,
  );
}

type Props = ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look };

export function Button({ look = 'main', className, type = 'button', ...rest }: Props) {
  return <button type={type} className={buttonClass(look, className)} {...rest} />;
}

export function LinkButton({
  href,
  look = 'main',
  className,
  children,
}: {
  href: string;
  look?: Look;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Link href={href} className={buttonClass(look, className)}>
      {children}
    </Link>
  );
}
