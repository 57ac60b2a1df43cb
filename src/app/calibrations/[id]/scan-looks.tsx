import Link from 'next/link';
import { database } from '@/server/services/database';
import { otherSheets } from '@/server/services/other-sheets';
import type { CutSet } from '@/server/services/record';
import { RoundStation } from '@/ui/read/RoundStation';
import { ScanStation } from '@/ui/scan/ScanStation';
import type { ScanView } from '@/ui/scan/scan-view';
import { KeptScans } from './kept-scans';
import { rimViewOf, scanViewOf } from './read-views';
import type { StepProps } from './step-props';
import { PageHeading } from '@/ui/components/PageHeading';

interface ScanProps extends Pick<StepProps, 'record' | 'system'> {
  readonly set: CutSet;
  readonly next: ScanView['next'];
}

/** The set's coded discs on the scanner. */
export async function Scan({ record, system, set, next }: ScanProps) {
  const { id } = record.calibration;
  const others = await otherSheets(database(), record, set);
  const asked = { system, isBlind: set.purpose !== 'before', next, others };
  return (
    <>
      <PageHeading className="station-title">
        {record.definition.liftOffs.length > 0
          ? 'Measure the lifted discs by scanner'
          : 'Measure the sheet by scanner or camera'}
      </PageHeading>
      <ScanStation key={`${set.id} scan`} view={scanViewOf(record, set, asked)} />
      <p className="mt-3">
        <Link href={`/calibrations/${id}/read?look=fine`} prefetch={false}>
          Read by eye instead
        </Link>
      </p>
      <KeptScans calibrationId={id} cutSetId={set.id} />
    </>
  );
}

/** The back of the lifted discs, once their front is read. */
export async function BackOfDiscs({ record, system, query, set }: StepProps & { readonly set: CutSet }) {
  const asked = {
    system,
    isBlind: false,
    lookNo: 1,
    start: query.spot ? { spotNo: Number(query.spot), axis: 'across' as const } : null,
    next: { href: `/calibrations/${record.calibration.id}/map`, words: 'All read: how does the back lie?' },
  };
  const read = `/calibrations/${record.calibration.id}/read`;
  if (query.look === 'scan')
    return (
      <>
        <PageHeading className="station-title">Turn each disc over, and measure the backs by scanner</PageHeading>
        <ScanStation
          key={`${set.id} scan back`}
          view={scanViewOf(record, set, { ...asked, others: await otherSheets(database(), record, set) }, 'back')}
        />
        <p className="mt-3">
          <Link href={read} prefetch={false}>
            Read the backs by eye instead
          </Link>
        </p>
      </>
    );
  return (
    <>
      <PageHeading className="station-title">Turn each disc over, its number upright, and read its back</PageHeading>
      <RoundStation key={`${set.id} back`} view={rimViewOf(record, set, asked, 'back')} />
      <p className="mt-3">
        <Link href={`${read}?look=scan`} prefetch={false}>
          Put the turned discs on the scanner instead
        </Link>
      </p>
    </>
  );
}
