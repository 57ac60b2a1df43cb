import Link from 'next/link';
import { adviceForMaterials, readMachines, type Machines } from '@/server/services/shop-read';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { AddDemo } from '@/ui/shop/AddDemo';
import { RemoveDemo } from '@/ui/shop/RemoveDemo';
import { ShopName } from '@/ui/shop/ShopName';

export const dynamic = 'force-dynamic';

interface Row {
  readonly id: string;
  readonly name: string;
  readonly words: string;
}

interface ListProps {
  readonly title: string;
  readonly kind: string;
  readonly rows: readonly Row[];
  readonly empty: string;
  /** Absent where a thing is made elsewhere. */
  readonly add?: string;
}

function ThingList({ title, kind, rows, empty, add }: ListProps) {
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      <ul className="things">
        {rows.map((r) => (
          <li key={r.id}>
            <Link href={`/shop/${kind}/${r.id}`} prefetch={false}>
              {r.name}
            </Link>
            <span className="quiet d-block">{r.words}</span>
          </li>
        ))}
        {rows.length === 0 && <li className="quiet">{empty}</li>}
        {add && (
          <li>
            <Link className="btn btn-quiet" href={`/shop/${kind}/new`} prefetch={false}>
              {add}
            </Link>
          </li>
        )}
      </ul>
    </section>
  );
}

function SetupList({ setups }: { readonly setups: Machines['setups'] }) {
  return (
    <section aria-label="Printers + cutters">
      <h2>Printers + cutters</h2>
      <ul className="things">
        {setups.map((s) => (
          <li key={s.id}>
            <Link href={`/setups/${s.id}`} prefetch={false}>
              {s.name}
            </Link>
            <span className="quiet d-block">{s.machines}</span>
            {s.problems.map((p) => (
              <span key={p} className="caution d-block">
                {p}
              </span>
            ))}
          </li>
        ))}
        {setups.length === 0 && <li className="quiet">None yet: four questions put one on the bench.</li>}
        <li>
          <Link className="btn btn-primary" href="/shop/new" prefetch={false}>
            Add a printer + cutter
          </Link>
        </li>
      </ul>
    </section>
  );
}

export default async function ShopPage() {
  const session = await currentSession();
  const m = await readMachines(database(), session.shop.id);
  const hasDemo = session.shops.some((shop) => shop.isDemo);
  const advice = new Map(adviceForMaterials(m.materials).map((a) => [a.id, a.advice.verdict]));
  return (
    <HomeShell here="Shop" people={session}>
      <ShopName shop={session.shop} />
      <div className="two">
        <div>
          <SetupList setups={m.setups} />
          <ThingList
            title="Materials"
            kind="material"
            empty="None yet: the first printer + cutter brings plain paper with it."
            add="Add a material"
            rows={m.materials.map((x) => ({
              id: x.id,
              name: x.name,
              words: `${x.finish}; marks ${advice.get(x.id) ?? ''}`,
            }))}
          />
          <ThingList
            title="People"
            kind="person"
            empty="Nobody."
            add="Add a person"
            rows={m.people.map((x) => ({
              id: x.id,
              name: x.name,
              words: `${x.unitSystem.replaceAll('-', ' ')}, ${x.timeZone}`,
            }))}
          />
          <section aria-label="Phones">
            <h2>Phones</h2>
            <p>
              <Link className="btn btn-quiet" href="/shop/phones" prefetch={false}>
                Let phones in this shop in
              </Link>
            </p>
          </section>
          <section aria-label="Other shops">
            <h2>Other shops</h2>
            <p>
              <Link className="btn btn-quiet" href="/shop/start" prefetch={false}>
                Start another shop
              </Link>
            </p>
            {hasDemo ? <RemoveDemo /> : <AddDemo label="Add the demo shop" />}
          </section>
          <section aria-label="Everything as a file">
            <h2>Everything as a file</h2>
            <p>
              <Link className="btn btn-quiet" href="/shop/archive" prefetch={false}>
                Save the whole shop, or bring one in
              </Link>
            </p>
            <p>
              <Link className="btn btn-quiet" href="/shop/import" prefetch={false}>
                Take in a table from another tool
              </Link>
            </p>
          </section>
        </div>
        <div>
          <ThingList
            title="Cutters"
            kind="cutter"
            empty="None yet."
            rows={m.cutters.map((x) => ({
              id: x.id,
              name: x.name,
              words: `material goes ${x.feeds}; marks: ${m.markSchemes.find((s) => s.id === x.markSchemeId)?.name ?? 'not told'}`,
            }))}
          />
          <ThingList
            title="Programs"
            kind="program"
            empty="None: the cutters take plain files."
            rows={m.programs.map((x) => ({
              id: x.id,
              name: x.name,
              words: `opens ${x.opens.join(', ')}; knows a cut line by ${x.knowsCutBy.replaceAll('_', ' ')}`,
            }))}
          />
          <ThingList
            title="Printers"
            kind="printer"
            empty="None yet."
            rows={m.printers.map((x) => ({
              id: x.id,
              name: x.name,
              words: m.modes
                .filter((mode) => mode.printerId === x.id)
                .map((mode) => mode.name)
                .join('; '),
            }))}
          />
          <ThingList
            title="Print modes"
            kind="printMode"
            empty="None yet."
            rows={m.modes.map((x) => ({
              id: x.id,
              name: `${x.printerName}: ${x.name}`,
              words: `${x.page}${x.isBorderless ? ', borderless' : ''}`,
            }))}
          />
          <ThingList
            title="Marks"
            kind="markScheme"
            empty="None yet."
            add="Describe other marks"
            rows={m.markSchemes.map((x) => ({
              id: x.id,
              name: x.name,
              words: `${x.insetMm} mm from the edge, ${x.sizeMm} mm large`,
            }))}
          />
        </div>
      </div>
    </HomeShell>
  );
}
