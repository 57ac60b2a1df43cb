import Link from 'next/link';
import { LIST_NAMES, LIST_WORDS } from '@/contracts/lists';
import { readBefore } from '@/server/services/archive';
import { currentSession } from '@/server/services/session';
import { ArchiveTool } from '@/ui/archive/ArchiveTool';
import { HomeShell } from '@/ui/components/HomeShell';
import { stampWords } from '@/ui/components/dates';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

export default async function ArchivePage() {
  const [session, before] = await Promise.all([currentSession(), readBefore()]);
  return (
    <HomeShell here="Shop" people={session}>
      <PageHeading>The whole shop as a file</PageHeading>
      <div className="two">
        <section aria-label="Save the whole shop">
          <h2>Save the whole shop</h2>
          <p>
            Everything of <strong>{session.shop.name}</strong>: machines, settings, materials, people, check sheets,
            readings, corrections, history, rolls, jobs with their art, daily checks. One gzipped file of JSON lines
            that other programs can read.
          </p>
          <p>
            <a className="btn btn-primary" href="/shop/archive/file" download>
              Save the whole shop
            </a>
          </p>
          <p className="quiet">
            Keep it on another disk than this machine&rsquo;s. Names of people and art of customers are in it: keep it
            as you keep those. The passphrase for phones is not in it.
          </p>
        </section>
        <section aria-label="Bring one in">
          <h2>Bring one in</h2>
          <ArchiveTool
            before={
              before && { shopName: before.shopName, at: stampWords(new Date(before.at), session.person.timeZone) }
            }
          />
        </section>
      </div>
      <section aria-label="Single lists" className="mt-4">
        <h2>Single lists</h2>
        <p className="quiet">
          Lengths in mm, moments in UTC, the newest 200,000 lines. Tables of other tools come in under{' '}
          <Link href="/shop/import" prefetch={false}>
            take in a table
          </Link>
          .
        </p>
        <ul className="things">
          {LIST_NAMES.map((name) => (
            <li key={name}>
              {`${LIST_WORDS[name]}: `}
              {(['csv', 'json'] as const).map((format) => (
                <a
                  key={format}
                  className="me-3"
                  href={`/lists/${name}?format=${format}`}
                  download
                  aria-label={`${LIST_WORDS[name]} as ${format.toUpperCase()}`}
                >
                  {format.toUpperCase()}
                </a>
              ))}
            </li>
          ))}
        </ul>
      </section>
    </HomeShell>
  );
}
