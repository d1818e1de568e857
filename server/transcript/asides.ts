import type { AsidePhrases } from '@immeld/core/language/asides';
import type { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';

/**
 * The phrases of asides that a recording is listened to for; null for none. Only what was recorded here has them: others
 * say such words without meaning them.
 */
export async function asidesOf({ source }: Recording): Promise<AsidePhrases | null> {
  const { listensForAsides, asideOpening, asideClosing } = await sharedSettings();
  return source === 'speak' && listensForAsides ? { opening: asideOpening, closing: asideClosing } : null;
}
