import Link from 'next/link';
import { formatFixed } from '@/core/units/length';
import { isOffset } from '@/core/setting/machine-setting';
import { learnedFrom, type LearnedSetting } from '@/server/services/which-way';
import { moveWords, settingValueWords } from '@/server/services/words';
import { ActionButton } from '@/ui/calibration/ActionButton';
import { SettingPicture } from '@/ui/shop/SettingPicture';
import type { StepProps } from './step-props';
import { PageHeading } from '@/ui/components/PageHeading';

function toldWords({ setting, change, learned }: LearnedSetting, feeds: 'away' | 'towards'): string {
  const changed = `It was changed by ${settingValueWords(setting, change)}`;
  const size = isOffset(setting)
    ? `${formatFixed(Math.abs(learned.moved), 2)} mm`
    : `${formatFixed(Math.abs(learned.moved) * 100, 2)} %`;
  if (learned.sense === null)
    return `${changed}, and the cut moved ${size}: too little to tell. It may act on something else, or the value was not taken.`;
  const plus = moveWords(
    {
      setting: { ...setting, sense: learned.sense, gain: learned.gain ?? 1 },
      before: 0,
      after: Math.abs(change),
      toType: 0,
      isAtLimit: false,
    },
    feeds,
  );
  const strength =
    learned.gain === null ? '' : ` It does ${formatFixed(learned.gain * 100, 0)} % of what its unit says.`;
  return `${changed} and the cut moved ${size}. With plus, ${plus}.${strength}`;
}

interface LearnedProps {
  readonly told: readonly LearnedSetting[];
  readonly feeds: 'away' | 'towards';
}

/** What two cuts tell of each setting, in words. */
export function LearnedSettings({ told, feeds }: LearnedProps) {
  return told.map((t) => (
    <section key={t.setting.id} aria-label={t.setting.displayName}>
      <h2>{t.setting.displayName}</h2>
      <p>{toldWords(t, feeds)}</p>
      {t.setting.kind === 'wizard' && (
        <p className="quiet">
          A wizard hides its value: it can be neither read nor put back. When two tests agree, Red Plumb says which line
          to pick.
        </p>
      )}
    </section>
  ));
}

/** What the two cuts of a which-way test tell of each setting. */
export function WhichWayPage({ record }: StepProps) {
  const { id, setupId, state } = record.calibration;
  const told = learnedFrom(record);
  if (!told) {
    return (
      <>
        <PageHeading>Read both cuts first</PageHeading>
        <Link className="btn btn-primary" href={`/calibrations/${id}/read`} prefetch={false}>
          Read them
        </Link>
      </>
    );
  }
  const isKept = state === 'saved';
  const known = told.filter((t) => t.learned.sense !== null);
  return (
    <>
      <PageHeading>
        {known.length === told.length
          ? `Now it is known which way ${known.map((t) => t.setting.displayName).join(' and ')} ${known.length === 1 ? 'goes' : 'go'}`
          : 'Not every direction could be told'}
      </PageHeading>
      <div className="two">
        <div>
          {told.map((t) => (
            <SettingPicture
              key={t.setting.id}
              actsOn={t.setting.actsOn}
              sense={t.learned.sense ?? 1}
              isKnown={t.learned.sense !== null}
              feed={record.setupRow.cutter.feeds}
            />
          ))}
        </div>
        <div>
          <LearnedSettings told={told} feeds={record.setupRow.cutter.feeds} />
          {isKept ? (
            <p role="status">
              This is kept.{' '}
              <Link className="btn btn-primary" href={`/setups/${setupId}`} prefetch={false}>
                Now check it
              </Link>
            </p>
          ) : (
            <ActionButton action="keep-which-way" calibrationId={id} words="Keep what was learned" isMain />
          )}
          <p className="quiet">The changed values stay set, and are in the record: the next check starts from them.</p>
        </div>
      </div>
    </>
  );
}
