'use client';

import type { JobDraft } from '@/core/layout/job-draft';
import type { UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import { PagePicker } from '../components/PagePicker';
import type { JobEditorView } from './job-view';

interface Props {
  readonly view: JobEditorView;
  readonly draft: JobDraft;
  readonly system: UnitSystem;
  /** Raised when the inset was moved elsewhere than in its field. */
  readonly moved: number;
  readonly onChange: (next: Partial<JobDraft>) => void;
}

type FieldsProps = Pick<Props, 'draft' | 'system' | 'onChange'>;

/** A sheet: its page. A roll: how wide it prints and how long one piece may be. */
function SizeFields({ view, draft, system, onChange }: Pick<Props, 'view'> & FieldsProps) {
  const { page } = draft;
  if (draft.form === 'sheet')
    return (
      <PagePicker
        own={view.layout.modePage}
        page={page}
        system={system}
        onPage={(next) => {
          onChange({ page: { name: next.name, widthMm: next.widthMm, lengthMm: next.lengthMm } });
        }}
      />
    );
  const printable = view.layout.printableWidthMm;
  return (
    <div className="d-flex flex-wrap gap-3">
      <LengthField
        label="Printable width"
        hint={printable === null ? 'as the printer reports it, not the roll\u2019s' : undefined}
        system={system}
        initialMm={page.widthMm}
        onChange={(mm) => {
          if (mm !== null && mm >= 30) onChange({ page: { ...page, widthMm: mm } });
        }}
      />
      <LengthField
        label="Longest piece"
        hint="each is made as short as its copies allow"
        system={system}
        initialMm={page.lengthMm}
        onChange={(mm) => {
          if (mm !== null && mm >= 30) onChange({ page: { ...page, lengthMm: mm } });
        }}
      />
    </div>
  );
}

function SpareFields({ draft, system, onChange }: FieldsProps) {
  if (draft.form === 'sheet') return null;
  return (
    <div className="d-flex flex-wrap gap-3">
      {(
        [
          ['spareFrontMm', 'Spare before the first marks', 'for the test cut'],
          ['spareRearMm', 'Spare behind the last', 'keeps the rear sensor covered'],
        ] as const
      ).map(([name, label, hint]) => (
        <LengthField
          key={name}
          label={label}
          hint={hint}
          system={system}
          initialMm={draft[name]}
          onChange={(mm) => {
            if (mm !== null && mm >= 0) onChange({ [name]: mm });
          }}
        />
      ))}
    </div>
  );
}

/** Of work on both sides the other inset; of work seen through its film, that it is mirrored. */
function SideFields({ view, draft, system, onChange }: Pick<Props, 'view'> & FieldsProps) {
  const isTwoSided = view.layout.family === 'F6';
  return (
    <>
      {isTwoSided && (
        <LengthField
          label="Inset typed for the back"
          hint="the same as the front\u2019s"
          system={system}
          initialMm={draft.backInsetMm ?? draft.insetMm}
          onChange={(mm) => {
            if (mm !== null && mm >= 0) onChange({ backInsetMm: mm });
          }}
        />
      )}
      <label className="choice">
        <input
          type="checkbox"
          checked={draft.isMirrored}
          onChange={(event) => {
            onChange({ isMirrored: event.target.checked });
          }}
        />
        <span>
          Mirrored
          <span className="quiet d-block">for work that is seen through its film</span>
        </span>
      </label>
    </>
  );
}

/** Page or roll, the marks\u2019 inset, gap, spare and sides. */
export function PageForm({ view, draft, system, moved, onChange }: Props) {
  return (
    <section aria-label="Page and marks" className="mt-4">
      <h2>Page and marks</h2>
      <div className="d-flex flex-wrap gap-2 mb-2" role="group" aria-label="Sheet or roll">
        {(['sheet', 'roll'] as const).map((form) => (
          <button
            key={form}
            type="button"
            className={`btn ${form === draft.form ? 'btn-primary' : 'btn-quiet'}`}
            aria-pressed={form === draft.form}
            onClick={() => {
              onChange({ form });
            }}
          >
            {form === 'sheet' ? 'Sheets' : 'Off a roll'}
          </button>
        ))}
      </div>
      <SizeFields key={draft.form} view={view} draft={draft} system={system} onChange={onChange} />
      <div className="d-flex flex-wrap gap-3">
        {view.page.marks.kind !== 'none' && (
          <LengthField
            key={`inset ${moved}`}
            label="Marks from the edge"
            hint="or drag the corner in the picture"
            system={system}
            initialMm={draft.insetMm}
            onChange={(mm) => {
              if (mm !== null && mm >= 0) onChange({ insetMm: mm });
            }}
          />
        )}
        {draft.laysOut === 'here' && (
          <LengthField
            label="Between copies"
            system={system}
            initialMm={draft.gapMm}
            onChange={(mm) => {
              if (mm !== null && mm >= 0) onChange({ gapMm: mm });
            }}
          />
        )}
      </div>
      <SpareFields draft={draft} system={system} onChange={onChange} />
      <SideFields view={view} draft={draft} system={system} onChange={onChange} />
    </section>
  );
}
