import Link from 'next/link';
import type { CalibrationRecord, CutSet } from '@/server/services/record';
import { ReadStation } from '@/ui/read/ReadStation';
import { RimStation } from '@/ui/read/RimStation';
import { readViewOf, rimViewOf, type Asked } from './read-views';

interface Props {
  readonly record: CalibrationRecord;
  readonly set: CutSet;
  readonly asked: Asked;
}

/** The station that a set's figures are read at: wedges one by one, lift-off discs both ways in one look. */
export function FineStation({ record, set, asked }: Props) {
  const key = `${set.id} ${asked.lookNo} ${asked.start?.spotNo ?? ''} ${asked.start?.axis ?? ''}`;
  if (record.definition.liftOffs.length > 0) return <RimStation key={key} view={rimViewOf(record, set, asked)} />;
  return <ReadStation key={key} view={readViewOf(record, set, asked)} />;
}

/** The other way to hand in a set's readings. */
export function ListInstead({ id, lookNo }: { readonly id: string; readonly lookNo: number }) {
  return (
    <p className="mt-3">
      <Link href={`/calibrations/${id}/read?look=list&again=${lookNo}`} prefetch={false}>
        Type or drop a list instead
      </Link>
    </p>
  );
}
