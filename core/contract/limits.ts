/**
 * What a request may hold at most, looked at before anything else is done with it. A schema is read once; what it says
 * about lengths is held against the value without running a rule, an expression or a conversion.
 */
import type { AnyObject, ObjectSchema, Schema } from 'yup';

type Shape =
  | { type: 'text'; most: number }
  | { type: 'list'; most: number; of: Shape }
  | { type: 'object'; fields: ReadonlyMap<string, Shape>; mostFields: number }
  | { type: 'number' | 'boolean' }
  | { type: 'tree' };

/** Where a schema names no limit. */
const MAX_TEXT = 500;
const MAX_LIST = 2000;
/** Unknown fields are refused by the schema in a sentence; thousands of them are refused here. */
const MORE_FIELDS = 50;
const MAX_NODES = 200_000;
const DEEPEST = 200;

type Described = {
  type: string;
  tests?: { name?: string | undefined; params?: Record<string, unknown> | undefined }[];
  fields?: Record<string, Described>;
  innerType?: Described;
};

function shapeOf(described: Described): Shape {
  const most = (usual: number): number => {
    const test = described.tests?.find((t) => t.name === 'max' || t.name === 'length');
    const value = test?.params?.['max'] ?? test?.params?.['length'];
    return typeof value === 'number' ? value : usual;
  };
  switch (described.type) {
    case 'string':
      return { type: 'text', most: most(MAX_TEXT) };
    case 'number':
    case 'boolean':
      return { type: described.type };
    case 'array':
      return { type: 'list', most: most(MAX_LIST), of: shapeOf(described.innerType ?? { type: 'mixed' }) };
    case 'object': {
      const fields = Object.entries(described.fields ?? {}).map(([name, field]) => [name, shapeOf(field)] as const);
      return { type: 'object', fields: new Map(fields), mostFields: fields.length + MORE_FIELDS };
    }
    default:
      return { type: 'tree' };
  }
}

const shapes = new WeakMap<object, Shape>();

/** Why a value is not even looked at, as a sentence; null where its size and kinds are those of the schema. */
export function beyondLimits(schema: ObjectSchema<AnyObject> | Schema<unknown>, value: unknown): string | null {
  let shape = shapes.get(schema);
  if (!shape) shapes.set(schema, (shape = shapeOf(schema.describe() as unknown as Described)));
  return problemOf(shape, value, '');
}

const called = (path: string): string => (path ? `“${path}”` : 'The request');
const inWords = (n: number): string => n.toLocaleString('en');

function problemOf(shape: Shape, value: unknown, path: string): string | null {
  if (value === null || value === undefined) return null;
  switch (shape.type) {
    case 'text':
      if (typeof value !== 'string') return `${called(path)} must be text.`;
      // Blanks around it are taken off before it is measured, so some more may come.
      if (value.length > shape.most * 2 + 100) {
        return `${called(path)} may have at most ${inWords(shape.most)} characters.`;
      }
      return value.includes('\u0000') ? `${called(path)} contains a character that cannot be stored.` : null;
    case 'number':
      return typeof value === 'number' || (typeof value === 'string' && value.length <= 40)
        ? null
        : `${called(path)} must be a number.`;
    case 'boolean':
      return typeof value === 'boolean' || value === 'true' || value === 'false'
        ? null
        : `${called(path)} must be true or false.`;
    case 'list': {
      if (!Array.isArray(value)) return `${called(path)} must be a list.`;
      if (value.length > shape.most) return `${called(path)} may have at most ${inWords(shape.most)} entries.`;
      for (const [i, item] of value.entries()) {
        const problem = problemOf(shape.of, item, `${path}[${i}]`);
        if (problem) return problem;
      }
      return null;
    }
    case 'object': {
      if (typeof value !== 'object' || Array.isArray(value)) return `${called(path)} must be an object.`;
      const names = Object.keys(value);
      if (names.length > shape.mostFields) return `${called(path)} has too many fields.`;
      for (const name of names) {
        const field = shape.fields.get(name);
        // Every object has these without being given them; as fields they are taken for what they are not.
        if (!field && name in Object.prototype) return `Unknown field: ${name}.`;
        const problem = field && problemOf(field, (value as AnyObject)[name], path ? `${path}.${name}` : name);
        if (problem) return problem;
      }
      return null;
    }
    case 'tree':
      return treeProblem(value, path);
  }
}

/** A value of any form: counted without recursion, so that nothing that is nested without end gets through. */
function treeProblem(root: unknown, path: string): string | null {
  const waiting: { value: unknown; depth: number }[] = [{ value: root, depth: 0 }];
  let count = 0;
  while (waiting.length) {
    const { value, depth } = waiting.pop()!;
    if (++count > MAX_NODES || depth > DEEPEST) return `${called(path)} is too large.`;
    if (typeof value === 'string' && value.includes('\u0000')) {
      return `${called(path)} contains a character that cannot be stored.`;
    }
    if (typeof value !== 'object' || value === null) continue;
    if (Object.hasOwn(value, '__proto__')) return `${called(path)} has a field that is not known: __proto__.`;
    for (const inner of Object.values(value)) waiting.push({ value: inner, depth: depth + 1 });
  }
  return null;
}
