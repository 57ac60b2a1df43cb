import Link from 'next/link';
import { PageHeading } from '@/ui/components/PageHeading';

export default function NotFound() {
  return (
    <main>
      <PageHeading>There is nothing here</PageHeading>
      <p>It may have been moved or never made. Everything the shop has kept is in the history.</p>
      <Link className="btn btn-primary" href="/">
        Back to the bench
      </Link>
    </main>
  );
}
