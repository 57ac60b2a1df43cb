import Link from 'next/link';

export default function NotFound() {
  return (
    <main>
      <h1>There is nothing here</h1>
      <p>It may have been moved or never made. Everything the shop has kept is in the history.</p>
      <Link className="btn btn-primary" href="/">
        Back to the bench
      </Link>
    </main>
  );
}
