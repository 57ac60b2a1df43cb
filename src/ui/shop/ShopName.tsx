'use client';

import { useState, useTransition } from 'react';
import { shopSaved } from '@/server/actions/shop';
import type { ShopView } from '../components/types';
import { PageHeading } from '../components/PageHeading';

const currencyNames = new Intl.DisplayNames('en', { type: 'currency' });

/** Currencies that this browser knows, as its own list has them: drawn only after a press, so never on the server. */
function CurrencyOptions() {
  return (
    <>
      <option value="">not said: plain numbers</option>
      {Intl.supportedValuesOf('currency').map((code) => (
        <option key={code} value={code}>
          {`${code}: ${currencyNames.of(code) ?? code}`}
        </option>
      ))}
    </>
  );
}

function ShopForm({ shop, onDone }: { readonly shop: ShopView; readonly onDone: () => void }) {
  const [name, setName] = useState(shop.name);
  const [currency, setCurrency] = useState(shop.currency);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  return (
    <form
      className="mb-3"
      style={{ maxWidth: '26rem' }}
      onSubmit={(event) => {
        event.preventDefault();
        startTransition(async () => {
          const done = await shopSaved({ id: shop.id, name, currency });
          setProblem(done.ok ? null : done.message);
          if (done.ok) onDone();
        });
      }}
    >
      <label htmlFor="shop-name" className="form-label">
        Name of the shop
      </label>
      <input
        id="shop-name"
        className="form-control mb-3"
        value={name}
        readOnly={shop.isDemo}
        onChange={(e) => {
          setName(e.target.value);
        }}
      />
      <label htmlFor="shop-currency" className="form-label">
        Costs are in
      </label>
      <select
        id="shop-currency"
        className="form-select mb-3"
        value={currency ?? ''}
        onChange={(e) => {
          setCurrency(e.target.value === '' ? null : e.target.value);
        }}
      >
        <CurrencyOptions />
      </select>
      <span className="d-flex gap-2">
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          Save
        </button>
        <button type="button" className="btn btn-quiet" onClick={onDone}>
          Cancel
        </button>
      </span>
      <span role="alert" className="invalid-feedback d-block">
        {problem}
      </span>
    </form>
  );
}

/** The shop's name as the page's headline; its name and currency can be changed in place. */
export function ShopName({ shop }: { readonly shop: ShopView }) {
  const [isOpen, setIsOpen] = useState(false);
  return (
    <>
      <div className="d-flex flex-wrap align-items-baseline gap-3">
        <PageHeading>{shop.name}</PageHeading>
        {!isOpen && (
          <button
            type="button"
            className="btn-plain"
            onClick={() => {
              setIsOpen(true);
            }}
          >
            {shop.isDemo ? 'Set the currency' : 'Change name or currency'}
          </button>
        )}
      </div>
      {isOpen && (
        <ShopForm
          shop={shop}
          onDone={() => {
            setIsOpen(false);
          }}
        />
      )}
    </>
  );
}
