'use client';

import { useState, useTransition } from 'react';
import { nameShop } from '@/server/actions/shop';
import type { ShopView } from '../components/types';
import { PageHeading } from '../components/PageHeading';

/** The shop's name as the page's headline; one's own can be renamed in place. */
export function ShopName({ shop }: { readonly shop: ShopView }) {
  const [name, setName] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  if (name === null) {
    return (
      <div className="d-flex flex-wrap align-items-baseline gap-3">
        <PageHeading>{`${shop.name}: what stands in it`}</PageHeading>
        {!shop.isDemo && (
          <button
            type="button"
            className="btn-plain"
            onClick={() => {
              setName(shop.name);
            }}
          >
            Rename it
          </button>
        )}
      </div>
    );
  }
  return (
    <form
      className="mb-3"
      onSubmit={(event) => {
        event.preventDefault();
        startTransition(async () => {
          const done = await nameShop({ id: shop.id, name });
          setProblem(done.ok ? null : done.message);
          if (done.ok) setName(null);
        });
      }}
    >
      <title>The name of the shop · Red Plumb</title>
      <h1>
        <label htmlFor="shop-name">What is your shop called?</label>
      </h1>
      <span className="d-flex gap-2">
        <input
          id="shop-name"
          className="form-control"
          style={{ maxWidth: '20rem' }}
          value={name}
          onChange={(e) => {
            setName(e.target.value);
          }}
        />
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          Write it down
        </button>
      </span>
      <span role="alert" className="invalid-feedback d-block">
        {problem}
      </span>
    </form>
  );
}
