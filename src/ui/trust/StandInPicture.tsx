'use client';

import { useState } from 'react';

interface Props {
  readonly href: string;
  /** What it is that the stand-in makes. */
  readonly words: string;
  readonly button: string;
  readonly isBusy: boolean;
  readonly onFile: (file: File) => void;
}

/** The stand-in camera or scanner of a simulated setup: it looks at what its machine makes now. */
export function StandInPicture({ href, words, button, isBusy, onFile }: Props) {
  const [notice, setNotice] = useState<string | null>(null);
  const [isTaking, setTaking] = useState(false);
  const take = async (): Promise<void> => {
    setTaking(true);
    setNotice(null);
    try {
      const answer = await fetch(href);
      if (answer.ok) {
        const blob = await answer.blob();
        onFile(new File([blob], `stand-in.${blob.type === 'image/png' ? 'png' : 'jpg'}`, { type: blob.type }));
      } else setNotice(await answer.text());
    } catch {
      setNotice('The stand-in does not answer. Try again in a moment.');
    }
    setTaking(false);
  };
  return (
    <fieldset className="bed">
      <legend className="h2">Stand-in</legend>
      <p className="quiet">{words}</p>
      <button
        type="button"
        className="btn btn-quiet"
        disabled={isBusy || isTaking}
        onClick={() => {
          void take();
        }}
      >
        {isTaking ? 'Taking the picture \u2026' : button}
      </button>
      {notice && (
        <p role="alert" className="notice">
          {notice}
        </p>
      )}
    </fieldset>
  );
}
