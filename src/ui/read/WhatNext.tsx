'use client';

import Link from 'next/link';
import { useEffect, useRef } from 'react';

interface Props {
  /** Figures without an answer. */
  readonly left: number;
  /** Answers that the server does not have yet: what comes next stands on them. */
  readonly unsaved: number;
  readonly next: { readonly href: string; readonly words: string };
  /** All is answered and nothing is being read again: Enter goes on. */
  readonly isDone: boolean;
}

/** The way on from reading. It opens once the server has every answer. */
export function WhatNext({ left, unsaved, next, isDone }: Props) {
  const link = useRef<HTMLAnchorElement>(null);
  const canGo = unsaved === 0;
  useEffect(() => {
    if (isDone && canGo) link.current?.focus();
  }, [isDone, canGo]);
  if (!canGo) return <p role="status">{`Saving ${unsaved === 1 ? '1 reading' : `${unsaved} readings`} ...`}</p>;
  return (
    <Link ref={link} className={`btn ${left === 0 ? 'btn-primary' : 'btn-quiet'}`} href={next.href} prefetch={false}>
      {left === 0 ? next.words : `${left} still to read`}
    </Link>
  );
}
