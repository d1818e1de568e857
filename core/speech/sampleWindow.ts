/** A growing row of values of which the beginning can be dropped; positions stay those of the whole row. */
export class SampleWindow {
  private values = new Float32Array(0);
  private base = 0;

  /** Position one past the last value. */
  get end(): number {
    return this.base + this.values.length;
  }

  append(more: Float32Array): void {
    const joined = new Float32Array(this.values.length + more.length);
    joined.set(this.values);
    joined.set(more, this.values.length);
    this.values = joined;
  }

  /** The value at a position; 0 where nothing is kept. */
  at(position: number): number {
    return this.values[position - this.base] ?? 0;
  }

  slice(start: number, end: number): Float32Array {
    return this.values.slice(Math.max(0, start - this.base), Math.max(0, end - this.base));
  }

  dropBefore(position: number): void {
    const drop = Math.min(this.values.length, position - this.base);
    if (drop <= 0) return;
    this.values = this.values.slice(drop);
    this.base += drop;
  }
}
