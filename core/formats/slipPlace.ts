import { clockTime } from './times';

/** Where a slip belongs, after its name: "at 0:14", or "for the whole recording". */
export const slipPlace = ({ startMs, isWhole }: { startMs: number; isWhole?: boolean | undefined }): string =>
  isWhole ? 'for the whole recording' : `at ${clockTime(startMs)}`;
