import { Problem } from '@immeld/core/contract/problem';
import { Recording } from '../models/recording';

/** @throws Problem where there is no recording with this id in the account */
export async function checkRecording(id: string): Promise<void> {
  if (!(await Recording.count({ where: { id } }))) throw new Problem('not-found', 'This recording no longer exists.');
}
