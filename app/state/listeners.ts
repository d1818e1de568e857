/**
 * Whoever wants to know that something has changed. What has changed is asked for, not told, as `useSyncExternalStore`
 * of React wants it.
 */
export class Listeners {
  private readonly all = new Set<() => void>();

  /** Calls `listener` after every change until the returned function is called. */
  subscribe = (listener: () => void): (() => void) => {
    this.all.add(listener);
    return () => this.all.delete(listener);
  };

  /** Tells everybody who listens now, in the order in which they came. */
  tell = (): void => {
    for (const listener of [...this.all]) listener();
  };

  clear(): void {
    this.all.clear();
  }
}
