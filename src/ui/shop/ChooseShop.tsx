'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { chooseShop } from '@/server/actions/shop';
import type { ShopView } from '../components/types';

/** One button a shop; the browser remembers which was pressed. */
export function ChooseShop({ shops }: { readonly shops: readonly ShopView[] }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <>
      <ul className="things">
        {shops.map((shop) => (
          <li key={shop.id}>
            <button
              type="button"
              className="btn btn-quiet"
              disabled={isBusy}
              onClick={() => {
                startTransition(async () => {
                  const done = await chooseShop({ shopId: shop.id });
                  if (done.ok) router.push('/');
                  else setProblem(done.message);
                });
              }}
            >
              {shop.isDemo ? `${shop.name} (demo)` : shop.name}
            </button>
          </li>
        ))}
      </ul>
      <p role="alert" className="invalid-feedback d-block">
        {problem}
      </p>
    </>
  );
}
