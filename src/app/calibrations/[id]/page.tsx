import { notFound, redirect } from 'next/navigation';
import { database } from '@/server/services/database';
import { loadRecord } from '@/server/services/record';

export const dynamic = 'force-dynamic';

/** A calibration opens where it was left, on any browser. */
export default async function CalibrationPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  const record = await loadRecord(database(), id);
  if (!record) notFound();
  redirect(`/calibrations/${id}/${record.calibration.step}`);
}
