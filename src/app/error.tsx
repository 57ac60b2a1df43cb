'use client';

import Link from 'next/link';
import { PageHeading } from '@/ui/components/PageHeading';
import { useComeBack } from '@/ui/components/use-come-back';

const REQUEST_NUMBER = /^[2-9A-Z]{4}-[2-9A-Z]{4}$/;

const WORDS = {
  looking: { title: 'This page could not be shown', now: 'Looking for the reason ...' },
  'database-stopped': {
    title: 'The database has stopped, trying again',
    now: 'This page goes on by itself, usually within 10 seconds.',
  },
  'disk-full': {
    title: 'The disk is full',
    now: 'Free some space on the machine that runs Red Plumb. This page then goes on by itself.',
  },
  'no-answer': {
    title: 'Red Plumb does not answer, trying again',
    now: 'Is the machine that runs it switched on and in the network? This page goes on by itself.',
  },
  fault: { title: 'This page could not be shown', now: 'Try again. If it happens once more, look into the log.' },
} as const;

/** A page that could not be drawn: the true reason, and on by itself once that is gone. Whatever was saved is kept. */
export default function PageFault({
  error,
  reset,
}: {
  readonly error: Error & { digest?: string };
  readonly reset: () => void;
}) {
  const { state, again } = useComeBack(reset);
  const number = error.digest !== undefined && REQUEST_NUMBER.test(error.digest) ? error.digest : null;
  return (
    <main>
      <PageHeading>{WORDS[state].title}</PageHeading>
      <p role="status">{WORDS[state].now}</p>
      <p>Everything that was saved is kept.</p>
      <button type="button" className="btn btn-primary" onClick={again}>
        Try again
      </button>{' '}
      <Link className="btn btn-quiet" href="/">
        Back to the bench
      </Link>
      {number !== null && <p className="quiet mt-3">{`Number in the log: ${number}`}</p>}
    </main>
  );
}
