import { notFound, redirect } from 'next/navigation';
import { STEP_NAMES, type StepName } from '@/contracts/steps';
import { database } from '@/server/services/database';
import { loadRecord } from '@/server/services/record';
import { currentSession } from '@/server/services/session';
import { stopsOf } from '@/server/services/stops';
import { ActionButton } from '@/ui/calibration/ActionButton';
import { Rail } from '@/ui/components/Rail';
import { ConfirmPage } from '../confirm-page';
import { CutPage } from '../cut-page';
import { MapPage } from '../map-page';
import { PrintPage } from '../print-page';
import { ReadPage } from '../read-page';
import { SavePage } from '../save-page';
import { SettingsPage } from '../settings-page';
import type { StepProps } from '../step-props';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

const PAGES: Readonly<
  Record<Exclude<StepName, 'set-up'>, (props: StepProps) => React.ReactNode | Promise<React.ReactNode>>
> = {
  print: PrintPage,
  cut: CutPage,
  read: ReadPage,
  map: MapPage,
  settings: SettingsPage,
  confirm: ConfirmPage,
  save: SavePage,
};

const KIND_WORDS = {
  quick: 'quick check',
  full: 'full check',
  which_way: 'which-way test',
  mark_use: 'test of the marks',
  two_faces: 'front against back',
} as const;

interface Props {
  readonly params: Promise<{ id: string; step: string }>;
  readonly searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function StepPage({ params, searchParams }: Props) {
  const { id, step } = await params;
  const [session, record, query] = await Promise.all([currentSession(), loadRecord(database(), id), searchParams]);
  const name = STEP_NAMES.find((s) => s === step);
  if (!record || !name) notFound();
  if (name === 'set-up') redirect(`/setups/${record.calibration.setupId}`);
  const stops = stopsOf(record, name);
  if (!stops.some((s) => s.step === name && s.canGo)) redirect(`/calibrations/${id}/${record.calibration.step}`);
  const Page = PAGES[name];
  const flat = Object.fromEntries(
    Object.entries(query).flatMap(([key, value]) => (typeof value === 'string' ? [[key, value]] : [])),
  );
  const isCancelled = record.calibration.state === 'abandoned';
  return (
    <div className="shell">
      <Rail
        people={session}
        stops={stops.map((s) => ({
          label: s.label,
          place: s.place,
          ...(s.canGo ? { href: `/calibrations/${id}/${s.step}` } : {}),
        }))}
      />
      <main>
        <p className="quiet mb-1 crumbs">
          <span>{`${record.setupRow.setup.name}, ${KIND_WORDS[record.calibration.kind]} on ${record.material.name}, sheet `}</span>
          <span className="figures">{record.sheets.map((s) => s.code).join(', ')}</span>
          {record.calibration.state === 'open' && (
            <ActionButton action="leave" calibrationId={id} words="Cancel check" />
          )}
        </p>
        {isCancelled ? (
          <div className="notice">
            <PageHeading>This check was cancelled. Its readings are kept.</PageHeading>
            <ActionButton action="take-up" calibrationId={id} words="Reopen check" isMain />
          </div>
        ) : (
          <Page record={record} system={session.person.unitSystem} query={flat} />
        )}
      </main>
    </div>
  );
}
