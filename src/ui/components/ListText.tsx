'use client';

import { useId } from 'react';
import { MOST_CHARACTERS } from '@/formats/csv/reading-list';

interface Props {
  readonly label: string;
  readonly help?: string;
  readonly rows: number;
  readonly text: string;
  /** A table to be filled in, and what the button that gives it is called. */
  readonly empty: string;
  readonly emptyWords: string;
  readonly placeholder: string;
  /** Longest text that is taken; of a longer file one letter more is shown, so that it is refused and not cut short unseen. */
  readonly most?: number;
  readonly onText: (text: string) => void;
}

/** A list as text: typed, pasted from a spreadsheet, dropped in as a file, or begun from an empty table. */
export function ListText({
  label,
  help,
  rows,
  text,
  empty,
  emptyWords,
  placeholder,
  most = MOST_CHARACTERS,
  onText,
}: Props) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="form-label">
        {label}
      </label>
      <textarea
        id={id}
        className="form-control figures"
        rows={rows}
        spellCheck={false}
        value={text}
        placeholder={placeholder}
        aria-describedby={help === undefined ? undefined : `${id}-help`}
        onChange={(event) => {
          onText(event.target.value);
        }}
      />
      {help !== undefined && (
        <p id={`${id}-help`} className="quiet">
          {help}
        </p>
      )}
      <p className="d-flex gap-3 flex-wrap align-items-center mt-2">
        <button
          type="button"
          className="btn btn-quiet"
          onClick={() => {
            onText(empty);
          }}
        >
          {emptyWords}
        </button>
        <span>
          <label htmlFor={`${id}-file`} className="form-label mb-0 me-2">
            or a CSV file
          </label>
          <input
            id={`${id}-file`}
            type="file"
            accept=".csv,.tsv,.txt,text/csv"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file)
                void file
                  .slice(0, most + 1)
                  .text()
                  .then(onText);
            }}
          />
        </span>
      </p>
    </>
  );
}
