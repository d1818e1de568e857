import { type Scope, scopeSchema } from '@immeld/core/contract/scope';

/** A scope as the parameters of an address. */
export const scopeAddress = ({ recordingIds, ...rest }: Scope): Record<string, string> => ({
  ...Object.fromEntries(Object.entries(rest).flatMap(([k, v]) => (v ? [[k, v]] : []))),
  ...(recordingIds ? { ids: recordingIds.join(',') } : {}),
});

/** The scope that an address means; null where it means none, so that nobody gets a write-up of other things than asked for. */
export function scopeFrom({ ids, ...rest }: Record<string, string | undefined>): Scope | null {
  const scope = { ...rest, ...(ids ? { recordingIds: ids.split(',') } : {}) };
  try {
    return scopeSchema.validateSync(scope, { stripUnknown: true });
  } catch {
    return null;
  }
}
