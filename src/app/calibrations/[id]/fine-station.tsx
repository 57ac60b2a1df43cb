import Link from 'next/link';
import { codedOf, discsOf } from '@/server/services/looks';
import type { CalibrationRecord, CutSet } from '@/server/services/record';
import { ReadStation } from '@/ui/read/ReadStation';
import { RoundStation } from '@/ui/read/RoundStation';
import { readViewOf, rimViewOf, type Asked } from './read-views';

interface Props {
  readonly record: CalibrationRecord;
  readonly set: CutSet;
  readonly asked: Asked;
}

/** The station that a set's figures are read at: wedges one by one, lift-off discs both ways in one look. */
export function FineStation({ record, set, asked }: Props) {
  const key = `${set.id} ${asked.lookNo} ${asked.start?.spotNo ?? ''} ${asked.start?.axis ?? ''}`;
  if (record.definition.liftOffs.length > 0) return <RoundStation key={key} view={rimViewOf(record, set, asked)} />;
  return <ReadStation key={key} view={readViewOf(record, set, asked)} />;
}

interface OtherWaysProps extends Pick<Props, 'record' | 'set'> {
  readonly lookNo: number;
}

/** The other ways to hand in a set's readings. */
export function OtherWays({ record, set, lookNo }: OtherWaysProps) {
  const read = `/calibrations/${record.calibration.id}/read`;
  return (
    <p className="mt-3 d-flex gap-4 flex-wrap">
      {codedOf(record, set).length > 0 && (
        <Link href={`${read}?look=scan`} prefetch={false}>
          {record.definition.liftOffs.length > 0
            ? 'Put the lifted discs on the scanner instead'
            : 'Put the sheet on the scanner instead'}
        </Link>
      )}
      <Link href={`${read}?look=list&again=${lookNo}`} prefetch={false}>
        Type or drop a list instead
      </Link>
      {discsOf(record, set).length > 0 && (
        <Link href={`${read}?look=discs&again=${lookNo}`} prefetch={false}>
          Read or measure the discs as well
        </Link>
      )}
    </p>
  );
}
