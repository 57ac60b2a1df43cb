import { stripOf } from '@/server/services/rolls';
import { PieceScan } from '@/ui/roll/PieceScan';
import type { RollProps } from './roll-props';
import { PageHeading } from '@/ui/components/PageHeading';

/** Stations measured by scanning the pieces. */
export function ScanPage({ record, system, nav }: RollProps) {
  const { roll, isSimulated } = record;
  return (
    <>
      <PageHeading>Scan the pieces</PageHeading>
      {nav}
      <PieceScan
        view={{
          ...{ rollId: roll.id, strip: stripOf(roll), system },
          standInHref: isSimulated ? `/rolls/${roll.id}/stand-in-scan` : null,
        }}
      />
    </>
  );
}
