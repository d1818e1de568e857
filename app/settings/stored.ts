/** What the server said last is kept on this device for when it cannot be reached. */
export function readStored<T>(key: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as T | null;
  } catch {
    return null;
  }
}

/** Forgets everything that Immeld keeps in this browser beside recordings. */
export function clearStored(): void {
  try {
    for (const key of Object.keys(localStorage)) if (key.startsWith('immeld')) localStorage.removeItem(key);
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}

/** Does nothing in a browser that keeps nothing. */
export function writeStored(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // A private window or a full device: it works without.
  }
}
