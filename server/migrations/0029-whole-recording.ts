import type { QueryInterface } from 'sequelize';
import { no } from './columns';

/** A slip, a link or a file may belong to a whole recording instead of a moment of it. */
export const up = (schema: QueryInterface): Promise<void> => schema.addColumn('slips', 'is_whole', no);
