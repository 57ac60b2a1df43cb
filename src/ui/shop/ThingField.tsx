'use client';

import { useId, useState } from 'react';
import type { UnitSystem } from '@/core/units/length';
import { readDisplay } from '../calibration/TypedBack';
import { LengthField } from '../components/LengthField';
import { TypedField } from '../components/TypedField';
import type { FieldSpec } from './thing-specs';

interface Props {
  readonly spec: FieldSpec;
  readonly system: UnitSystem;
  readonly value: unknown;
  readonly onChange: (value: unknown) => void;
}

/** One field of a thing by its kind. What is typed stays until it is right. */
export function ThingField({ spec, system, value, onChange }: Props) {
  const id = useId();
  switch (spec.kind) {
    case 'text':
    case 'text-or-none':
      return <TextField id={id} spec={spec} value={value} onChange={onChange} />;
    case 'length':
    case 'length-or-none':
      return (
        <LengthField
          label={spec.label}
          system={system}
          {...(typeof value === 'number' ? { initialMm: value } : {})}
          {...(spec.hint ? { hint: spec.hint } : {})}
          isOptional={spec.kind === 'length-or-none'}
          onChange={onChange}
        />
      );
    case 'number':
    case 'number-or-none':
      return <NumberField spec={spec} value={value} onChange={onChange} />;
    case 'yes-no':
      return <YesNoField spec={spec} value={value} onChange={onChange} />;
    case 'choice':
      return <ChoiceField id={id} spec={spec} value={value} onChange={onChange} />;
    case 'choices':
      return <ChoicesField spec={spec} value={value} onChange={onChange} />;
  }
}

type SpecOf<K extends FieldSpec['kind']> = Extract<FieldSpec, { readonly kind: K }>;

interface FieldProps<K extends FieldSpec['kind']> {
  readonly spec: SpecOf<K>;
  readonly value: unknown;
  readonly onChange: (value: unknown) => void;
}

type WithId<T> = T & { readonly id: string };

function TextField({ id, spec, value, onChange }: WithId<FieldProps<'text' | 'text-or-none'>>) {
  return (
    <Labelled id={id} spec={spec}>
      <input
        id={id}
        className="form-control"
        value={typeof value === 'string' ? value : ''}
        onChange={(e) => {
          onChange(spec.kind === 'text-or-none' && e.target.value === '' ? null : e.target.value);
        }}
      />
    </Labelled>
  );
}

function YesNoField({ spec, value, onChange }: FieldProps<'yes-no'>) {
  return (
    <label className="choice mb-3">
      <input
        type="checkbox"
        checked={value === true}
        onChange={(e) => {
          onChange(e.target.checked);
        }}
      />
      <span>
        {spec.label}
        {spec.hint && <span className="quiet d-block">{spec.hint}</span>}
      </span>
    </label>
  );
}

function ChoiceField({ id, spec, value, onChange }: WithId<FieldProps<'choice'>>) {
  return (
    <Labelled id={id} spec={spec}>
      <select
        id={id}
        className="form-select"
        value={spec.isJson ? JSON.stringify(value ?? null) : String(value)}
        onChange={(e) => {
          onChange(spec.isJson ? JSON.parse(e.target.value) : e.target.value);
        }}
      >
        {spec.options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </Labelled>
  );
}

function ChoicesField({ spec, value, onChange }: FieldProps<'choices'>) {
  const chosen = Array.isArray(value) ? (value as readonly string[]) : [];
  return (
    <fieldset className="mb-3">
      <legend className="form-label fs-6">{spec.label}</legend>
      {spec.options.map((o) => (
        <label key={o.value} className="choice">
          <input
            type="checkbox"
            checked={chosen.includes(o.value)}
            onChange={(e) => {
              onChange(e.target.checked ? [...chosen, o.value] : chosen.filter((c) => c !== o.value));
            }}
          />
          {o.label}
        </label>
      ))}
    </fieldset>
  );
}

interface LabelledProps {
  readonly id: string;
  readonly spec: FieldSpec;
  readonly children: React.ReactNode;
}

function Labelled({ id, spec, children }: LabelledProps) {
  return (
    <div className="mb-3">
      <label htmlFor={id} className="form-label">
        {spec.label}
      </label>
      {children}
      {spec.hint && <div className="quiet">{spec.hint}</div>}
    </div>
  );
}

function NumberField({ spec, value, onChange }: FieldProps<'number' | 'number-or-none'>) {
  const [text, setText] = useState(typeof value === 'number' ? String(value) : '');
  const isWrong = text.trim() === '' ? spec.kind === 'number' : readDisplay(text) === null;
  return (
    <TypedField
      label={spec.label}
      text={text}
      unit=""
      problem={isWrong ? `"${text}" is not a number.` : null}
      hint={spec.hint}
      onType={(typed) => {
        setText(typed);
        onChange(typed.trim() === '' ? null : (readDisplay(typed) ?? typed));
      }}
    />
  );
}
