'use client';

import { useEffect, useRef, useState, type RefObject } from 'react';

/** Width of an element as it stands on the screen, px, so that a chart is drawn with letters of their right size. */
export function useWidth<E extends Element>(usualPx: number): readonly [RefObject<E | null>, number] {
  const ref = useRef<E>(null);
  const [width, setWidth] = useState(usualPx);
  useEffect(() => {
    const { current } = ref;
    if (!current) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setWidth(Math.max(240, Math.round(entry.contentRect.width)));
    });
    observer.observe(current);
    return () => {
      observer.disconnect();
    };
  }, []);
  return [ref, width];
}
