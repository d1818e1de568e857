/** Whose turn it is: the account with the fewest that run, then the one whose last turn is longest ago. */
export class AccountTurns {
  private readonly running = new Map<string, number>();
  /** In the order of their last turn. */
  private readonly order = new Set<string>();

  /** One of an account begins, or goes on. */
  begin(accountId: string): void {
    this.order.delete(accountId);
    this.order.add(accountId);
    this.running.set(accountId, (this.running.get(accountId) ?? 0) + 1);
  }

  /** One of an account has ended, or is held. */
  end(accountId: string): void {
    this.running.set(accountId, Math.max(0, (this.running.get(accountId) ?? 0) - 1));
  }

  /** Whose turn it is among these; null where there are none. */
  next(accountIds: readonly string[]): string | null {
    const order = [...this.order];
    const ranked = accountIds.map((id) => ({ id, running: this.running.get(id) ?? 0, lastTurn: order.indexOf(id) }));
    return ranked.sort((a, b) => a.running - b.running || a.lastTurn - b.lastTurn)[0]?.id ?? null;
  }
}
