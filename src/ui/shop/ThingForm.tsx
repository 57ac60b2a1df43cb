'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition, type ReactNode } from 'react';
import type { ThingKind } from '@/contracts/shop';
import type { FeedDirection } from '@/core/geometry/load';
import type { UnitSystem } from '@/core/units/length';
import { saveShopThing } from '@/server/actions/shop';
import { fieldsOf, type Option, type Values } from './thing-specs';
import { ThingField } from './ThingField';
import { ThingPicture } from './ThingPicture';

export interface ThingView {
  readonly kind: ThingKind;
  readonly id: string;
  readonly ownerId: string | null;
  readonly values: Values;
  readonly marks: readonly Option[];
  readonly system: UnitSystem;
  readonly feed: FeedDirection;
}

/** A thing of the shop beside its picture: every change of a field shows at once what it means. */
export function ThingForm({ view, children }: { readonly view: ThingView; readonly children?: ReactNode }) {
  const router = useRouter();
  const [values, setValues] = useState<Values>(view.values);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const save = (): void => {
    startTransition(async () => {
      const done = await saveShopThing({ kind: view.kind, id: view.id, ownerId: view.ownerId, values });
      if (done.ok) router.push('/shop');
      else setProblem(done.message);
    });
  };
  return (
    <div className="two">
      <div className="stay">
        <ThingPicture kind={view.kind} values={values} feed={view.feed} />
        {children}
      </div>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        {fieldsOf(view.kind, view.marks).map((spec) => (
          <ThingField
            key={spec.name}
            spec={spec}
            system={view.system}
            value={values[spec.name]}
            onChange={(value) => {
              setValues({ ...values, [spec.name]: value });
            }}
          />
        ))}
        <p role="alert" className="invalid-feedback d-block">
          {problem}
        </p>
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          Write it down
        </button>
      </form>
    </div>
  );
}
