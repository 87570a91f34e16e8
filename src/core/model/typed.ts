import type * as z from 'zod/mini';
import type { fieldOpSchema } from './command';
import { recordSchema } from './records';

type Schema = z.ZodMiniType;
type Definition = {
  type: string;
  shape?: Record<string, Schema>;
  innerType?: Schema;
  valueType?: Schema;
  element?: Schema;
  options?: Schema[];
};
const definitionOf = (schema: Schema) => schema._zod.def as unknown as Definition;

/** What may stand in a field that lies within some schemas; none where that is not known. */
function within(schemas: readonly Schema[], key: string): Schema[] {
  return schemas.flatMap((schema): Schema[] => {
    const { type, shape, innerType, valueType, element, options } = definitionOf(schema);
    if (shape) return shape[key] ? [shape[key]] : [];
    if (innerType) return within([innerType], key);
    if (options) return within(options, key);
    if (type === 'record' && valueType) return [valueType];
    return type === 'array' && element ? [element] : [];
  });
}

/** The schemas of the records of each kind; a moment has one for each kind of moment. */
const kinds = new Map<string, Schema[]>();
const note = (schema: Schema): void => {
  const { options, shape } = definitionOf(schema);
  if (options) return options.forEach(note);
  const kind = shape?.kind && (definitionOf(shape.kind) as { values?: unknown[] }).values?.[0];
  if (typeof kind === 'string') kinds.set(kind, [...(kinds.get(kind) ?? []), schema]);
};
note(recordSchema as unknown as Schema);

/** True where every schema that may hold finds something of another type in a value; what is missing is none. */
const isOfNone = (schemas: readonly Schema[], value: unknown): boolean =>
  schemas.length > 0 &&
  schemas.every((schema) => {
    const { error } = schema.safeParse(value);
    return error?.issues.some(({ code, path }) => {
      const there = path.reduce<unknown>(
        (at, key) => (at as Record<PropertyKey, unknown> | null)?.[key],
        value,
      );
      return code === 'invalid_type' && there !== undefined;
    });
  });

/**
 * Whether a change writes something into a field that can never stand there: text for a number, a list for a name. No
 * device of ours has ever written that. A field that is not known may be one of a kind of moment.
 */
export function isWrongType({
  kind,
  field,
  after,
}: Pick<z.infer<typeof fieldOpSchema>, 'kind' | 'field' | 'after'>) {
  const schemas = kinds.get(kind);
  if (!schemas || after === undefined) return false;
  return isOfNone(field.split('.').reduce(within, schemas), after);
}
