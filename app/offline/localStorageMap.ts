/** Things of one kind, each under its id, in what this browser keeps for Immeld. */
export class LocalStorageMap<T> {
  constructor(private readonly prefix: string) {}

  read(id: string): T | null {
    try {
      const kept = localStorage.getItem(this.prefix + id);
      return kept ? (JSON.parse(kept) as T) : null;
    } catch {
      return null;
    }
  }

  /** False where this browser cannot keep anything: a private window, or no space. */
  put(id: string, value: T): boolean {
    try {
      localStorage.setItem(this.prefix + id, JSON.stringify(value));
      return true;
    } catch {
      return false;
    }
  }

  drop(id: string): void {
    try {
      localStorage.removeItem(this.prefix + id);
    } catch {
      // Nothing was kept there.
    }
  }

  ids(): string[] {
    try {
      return Object.keys(localStorage).flatMap((k) => (k.startsWith(this.prefix) ? k.slice(this.prefix.length) : []));
    } catch {
      return [];
    }
  }
}
