export function months(): string[] {
  return 'january february march april may june july august september october november december'.split(' ');
}
export const MONTHS = new Map(months().map((name) => [name, name[0]!.toUpperCase() + name.slice(1)]));
