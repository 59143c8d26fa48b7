'use client';

import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useId, useTransition } from 'react';
import { inputClass } from '@/kit/input-class';

type Props = { code: string; countries: { code: string; name: string }[]; label: string; none: string };

/** Where the payer is: the figures beside it are reckoned anew, and what was typed in the form stays. */
export function CountryPicker({ code, countries, label, none }: Props) {
  const id = useId();
  const router = useRouter();
  const path = usePathname();
  const search = useSearchParams();
  const [pending, start] = useTransition();
  const choose = (chosen: string): void => {
    const query = new URLSearchParams(search);
    query.set('country', chosen);
    start(() => router.replace(`${path}?${query.toString()}`, { scroll: false }));
  };
  return (
    <div className="mt-3 text-[0.9375rem]">
      <label htmlFor={id} className="text-muted">
        {label}
      </label>
      <select
        id={id}
        className={`${inputClass} mt-1`}
        value={code}
        disabled={pending}
        onChange={(event) => choose(event.target.value)}
      >
        {code === '' && <option value="">{none}</option>}
        {countries.map((country) => (
          <option key={country.code} value={country.code}>
            {country.name}
          </option>
        ))}
      </select>
    </div>
  );
}
