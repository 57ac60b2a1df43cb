'use client';

import Link from 'next/link';
import { PageHeading } from '@/ui/components/PageHeading';

/** A fault in drawing a page: nothing entered is lost, since every entry is kept as it is made. */
export default function PageFault({ reset }: { readonly reset: () => void }) {
  return (
    <main>
      <PageHeading>This page could not be drawn just now</PageHeading>
      <p>What you entered is kept. Is the database running? Try again, or start Red Plumb anew.</p>
      <button type="button" className="btn btn-primary" onClick={reset}>
        Try again
      </button>{' '}
      <Link className="btn btn-quiet" href="/">
        Back to the bench
      </Link>
    </main>
  );
}
