import { useSyncExternalStore } from 'react';
import { Listeners } from '../state/listeners';

let said = { text: '', count: 0 };
const listeners = new Listeners();

/** Has a screen reader say a sentence, after what it is saying now. Nothing is to be seen. */
export function announce(text: string): void {
  said = { text, count: said.count + 1 };
  listeners.tell();
}

/**
 * The place that screen readers listen to. It is there from the beginning: of a region that comes together with its
 * words many say nothing.
 */
export function Announcer() {
  const { text, count } = useSyncExternalStore(listeners.subscribe, () => said);
  return (
    <div
      role="status"
      aria-label="Announcements"
      style={{
        ...{ position: 'absolute', width: 1, height: 1, margin: -1, padding: 0, border: 0 },
        ...{ overflow: 'hidden', clipPath: 'inset(50%)', whiteSpace: 'nowrap' },
      }}
    >
      {/* The same sentence twice is said twice. */}
      {text && text + (count % 2 ? '' : '\u00a0')}
    </div>
  );
}
