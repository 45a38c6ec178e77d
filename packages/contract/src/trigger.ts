import { z } from 'zod';
import { COMPARISONS, EXIT_CERTAINTIES, LIMITS } from './values.ts';

const seconds = z.number().min(0).max(LIMITS.triggerSeconds).multipleOf(0.1);
export const selectorSchema = z.string().trim().min(1, 'name an element').max(300);
const wholeFrom = (least: number, most: number) => z.number().int().min(least).max(most);

/** A comparison with one value in an event's data, `path` in dots: `total`, `item.price`. */
export const dataConditionSchema = z.strictObject({
  path: z.string().min(1).max(120),
  comparison: z.enum(COMPARISONS),
  value: z.union([z.number(), z.string().max(300), z.boolean()]),
});
export type DataCondition = z.infer<typeof dataConditionSchema>;

/** What a page calls one of its events. */
export const eventNameSchema = z.string().trim().min(1, 'name the event').max(80);

/** One thing that can happen on a visit. Each is a small state machine in core, fed with facts. */
export const triggerSchema = z.discriminatedUnion('kind', [
  /** The document is parsed (`ready`) or everything in it is loaded. */
  z.strictObject({ kind: z.literal('load'), when: z.enum(['ready', 'loaded']) }),
  /** The page has been visible for this long; 0 means at once. */
  z.strictObject({ kind: z.literal('time'), seconds }),
  /** The pages of this session have been visible for this long together. */
  z.strictObject({ kind: z.literal('sessionTime'), seconds }),
  /** The deepest point reached after the visitor's first scroll. */
  z.strictObject({
    kind: z.literal('scroll'),
    unit: z.enum(['percent', 'pixels']),
    amount: wholeFrom(0, 100_000),
  }),
  z.strictObject({ kind: z.literal('element'), selector: selectorSchema }),
  z.strictObject({ kind: z.literal('articleEnd') }),
  z.strictObject({ kind: z.literal('exitMouse'), certainty: z.enum(EXIT_CERTAINTIES) }),
  z.strictObject({ kind: z.literal('exitTouch'), by: z.enum(['scrollUp', 'back']) }),
  z.strictObject({ kind: z.literal('tabReturn') }),
  z.strictObject({ kind: z.literal('inactivity'), seconds: seconds.min(1) }),
  z.strictObject({
    kind: z.literal('interact'),
    what: z.enum(['click', 'hover', 'focus']),
    selector: selectorSchema,
  }),
  z.strictObject({
    kind: z.literal('count'),
    of: z.enum(['viewsInSession', 'viewsOfPage', 'sessions']),
    atLeast: wholeFrom(1, 1000),
  }),
  z.strictObject({
    kind: z.literal('event'),
    name: eventNameSchema,
    condition: dataConditionSchema.nullable(),
  }),
  z.strictObject({ kind: z.literal('hand') }),
]);
export type Trigger = z.infer<typeof triggerSchema>;
export type TriggerKind = Trigger['kind'];
export const triggerKindSchema = z.enum(
  triggerSchema.options.map(({ shape }) => shape.kind.value) as [TriggerKind, ...TriggerKind[]],
);

export const momentSchema = z.strictObject({
  /** `any`: the first to happen opens it. `all`: each must have happened. */
  join: z.enum(['any', 'all']),
  triggers: z.array(triggerSchema).min(1, 'add at least one trigger').max(12),
  /** Nothing opens before the page has been visible for this long, whatever happened. */
  notBeforeSeconds: seconds,
  /** Once in a page view (`null`), or again when it happens anew after this long. */
  againAfterSeconds: seconds.min(1).nullable(),
});
export type Moment = z.infer<typeof momentSchema>;
