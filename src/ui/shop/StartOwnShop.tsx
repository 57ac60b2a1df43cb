'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { startShop } from '@/server/actions/shop';

/** Regions whose shops work in inches. */
const INCH_REGIONS = ['US'];

/** A shop of one's own in one tap: units and time zone as this browser has them, names to be changed later. */
export function StartOwnShop() {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <>
      <button
        type="button"
        className="btn btn-primary"
        disabled={isBusy}
        onClick={() => {
          const region = new Intl.Locale(navigator.language).region ?? '';
          startTransition(async () => {
            const done = await startShop({
              id: uuid(),
              unitSystem: INCH_REGIONS.includes(region) ? 'in-fraction' : 'mm',
              timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
            });
            if (done.ok) router.push('/shop/new');
            else setProblem(done.message);
          });
        }}
      >
        Start my own shop
      </button>
      <span role="alert">{problem}</span>
    </>
  );
}
