import type { Sheet } from '@immeld/core/contract/templates';
import type { SheetRow } from '../models/sheet';

export const sheetView = ({ id, recordingId, scope = null, isByModel, template, sections }: SheetRow): Sheet => ({
  ...{ id, recordingId, scope, isByModel: Boolean(isByModel), template, sections },
});
