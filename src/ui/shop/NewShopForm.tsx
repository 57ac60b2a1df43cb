'use client';

import { useRouter } from 'next/navigation';
import { useId, useState, useSyncExternalStore, useTransition } from 'react';
import { v4 as uuid } from 'uuid';
import { startShop } from '@/server/actions/shop';
import { UNIT_SYSTEMS, type UnitSystem } from '@/core/units/length';

const UNITS: Readonly<Record<UnitSystem, string>> = {
  mm: 'Millimetres (0.30 mm)',
  'in-decimal': 'Inches, decimals (0.012 in)',
  'in-fraction': 'Inches, fractions (5/16 in)',
};

/** Regions whose shops work in inches. */
const INCH_REGIONS = ['US'];

const never = () => () => undefined;
const browserZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;
const browserUnits = (): UnitSystem =>
  INCH_REGIONS.includes(new Intl.Locale(navigator.language).region ?? '') ? 'in-fraction' : 'mm';

/** A time zone that this browser has stands first, whether or not it is in the list. */
function TimeZones({ id, value, onChange }: { id: string; value: string; onChange: (zone: string) => void }) {
  const zones = [...new Set([value, 'UTC', ...Intl.supportedValuesOf('timeZone')])];
  return (
    <select
      id={id}
      className="form-select"
      value={value}
      onChange={(e) => {
        onChange(e.target.value);
      }}
    >
      {zones.map((zone) => (
        <option key={zone} value={zone}>
          {zone.replaceAll('_', ' ')}
        </option>
      ))}
    </select>
  );
}

interface FieldProps {
  readonly label: string;
  readonly hint: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly autoComplete: string;
}

function NameField({ label, hint, value, onChange, autoComplete }: FieldProps) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="form-label">
        {label}
      </label>
      <input
        id={id}
        className="form-control"
        required
        maxLength={60}
        autoComplete={autoComplete}
        aria-describedby={`${id}-hint`}
        value={value}
        onChange={(e) => {
          onChange(e.target.value);
        }}
      />
      <div id={`${id}-hint`} className="form-text">
        {hint}
      </div>
    </div>
  );
}

/** Makes a shop with its first person. Units and time zone begin as this browser has them. */
export function NewShopForm() {
  const router = useRouter();
  const id = useId();
  const [shopId] = useState(() => uuid());
  const [name, setName] = useState('');
  const [personName, setPersonName] = useState('');
  const ownZone = useSyncExternalStore(never, browserZone, () => 'UTC');
  const ownUnits = useSyncExternalStore(never, browserUnits, () => 'mm' as const);
  const [chosen, setChosen] = useState<{ readonly units?: UnitSystem; readonly zone?: string }>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const units = chosen.units ?? ownUnits;
  const zone = chosen.zone ?? ownZone;
  return (
    <form
      className="new-shop"
      onSubmit={(event) => {
        event.preventDefault();
        startTransition(async () => {
          const done = await startShop({ id: shopId, name, personName, unitSystem: units, timeZone: zone });
          if (done.ok) router.push('/shop/new');
          else setProblem(done.message);
        });
      }}
    >
      <NameField
        label="Name of the shop"
        hint="You can change it later."
        autoComplete="organization"
        value={name}
        onChange={setName}
      />
      <NameField
        label="Your name"
        hint="Readings and settings are saved under it. Add others later."
        autoComplete="name"
        value={personName}
        onChange={setPersonName}
      />
      <fieldset className="mb-3">
        <legend className="form-label h6">Units</legend>
        {UNIT_SYSTEMS.map((system) => (
          <label key={system} className="choice">
            <input
              type="radio"
              name="units"
              checked={units === system}
              onChange={() => {
                setChosen({ ...chosen, units: system });
              }}
            />
            <span>{UNITS[system]}</span>
          </label>
        ))}
      </fieldset>
      <div className="mb-4">
        <label htmlFor={`${id}-zone`} className="form-label">
          Time zone
        </label>
        <TimeZones
          id={`${id}-zone`}
          value={zone}
          onChange={(next) => {
            setChosen({ ...chosen, zone: next });
          }}
        />
      </div>
      <p role="alert" className="invalid-feedback d-block">
        {problem}
      </p>
      <button type="submit" className="btn btn-primary" disabled={isBusy}>
        Make the shop
      </button>
    </form>
  );
}
