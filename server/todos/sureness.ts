/** Below this, one in three of what is found is right (docs/benchmarks.md, "How sure"). */
const SURE = 0.4;

/** Whether a to-do was found so unsurely that it is shown fainter and not accepted with the others. */
export const isUnsure = ({ sure }: { sure: number | null }): boolean => sure !== null && sure < SURE;
