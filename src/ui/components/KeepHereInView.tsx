'use client';

import { useEffect, useRef } from 'react';

/** On a narrow screen the stops lie side by side: brings the one you are at into view. */
export function KeepHereInView() {
  const anchor = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    anchor.current?.scrollIntoView({ block: 'nearest', inline: 'center', behavior: 'instant' });
  }, []);
  return <span ref={anchor} aria-hidden="true" className="here-anchor" />;
}
