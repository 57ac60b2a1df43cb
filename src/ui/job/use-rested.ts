'use client';

import { useEffect, useState } from 'react';

/** A hand that has not moved for so long has come to rest. */
const REST_MS = 120;

/** A value as it stood when the hand that moves it last came to rest: what is costly to draw follows only then. */
export function useRested<T>(value: T, isMoved: boolean): T {
  const [rested, setRested] = useState(value);
  if (!isMoved && rested !== value) setRested(value);
  useEffect(() => {
    if (!isMoved) return;
    const timer = window.setTimeout(() => {
      setRested(value);
    }, REST_MS);
    return () => {
      window.clearTimeout(timer);
    };
  }, [value, isMoved]);
  return isMoved ? rested : value;
}
