import { type Dispatch, type SetStateAction, useEffect, useRef, useState } from 'react';

/** What is open, in the order in which it was opened: Escape closes the last. */
const open: (() => void)[] = [];

function close(event: KeyboardEvent): void {
  // A field that has used the key for itself says so.
  if (event.key !== 'Escape' || event.defaultPrevented) return;
  const last = open.at(-1);
  if (!last) return;
  event.preventDefault();
  last();
}

/**
 * State of something that opens and that Escape closes again, with the focus where it was before.
 * @param closed the value that it has while it is closed
 */
export function useClosable<T>(closed: T): [T, Dispatch<SetStateAction<T>>] {
  const [value, setValue] = useState<T>(closed);
  const shut = useRef(closed).current;
  const isOpen = value !== shut;
  useEffect(() => {
    if (!isOpen) return;
    const opener = document.activeElement as HTMLElement | null;
    const shutIt = () => {
      setValue(shut);
      requestAnimationFrame(() => opener?.isConnected && opener.focus());
    };
    if (open.length === 0) window.addEventListener('keydown', close);
    open.push(shutIt);
    return () => {
      open.splice(open.indexOf(shutIt), 1);
      if (open.length === 0) window.removeEventListener('keydown', close);
    };
  }, [isOpen, shut]);
  return [value, setValue];
}
