import { useEffect, useState } from 'react';

/** People type a letter in about this time: what is asked for at every letter waits for the end of a burst. Common practice, no source. */
const TYPING_MS = 120;

/** A value as it was when it had not changed for a moment; its first one at once. */
export function useDebounced<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), TYPING_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}
