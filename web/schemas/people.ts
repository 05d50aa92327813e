import { z } from 'zod';
import { GIVEN_ROLES } from '#core/people/roles.ts';

const name = z.string().trim().min(1, 'a name').max(60, 'at most 60 characters');
/** As long as is taken; what is too short or too easy is said in words. */
const password = z.string().min(1, 'a password').max(512, 'at most 128 characters');
const pin = z.string().regex(/^\d{4,8}$/, '4 to 8 digits');

export const firstOwnerSchema = z.object({ name, password });
export const signInSchema = z.object({ name, password: password.optional(), pin: pin.optional() });

export const signedInSchema = z.object({
  name: z.string(),
  role: z.enum(['nobody', ...GIVEN_ROLES]),
  by: z.enum(['nobody', 'session', 'pin', 'token', 'demo']),
});
export type SignedIn = z.infer<typeof signedInSchema>;

export const accountSchema = z.object({
  id: z.number(),
  name: z.string(),
  role: z.enum(GIVEN_ROLES),
  hasPassword: z.boolean(),
  hasPin: z.boolean(),
});
export type AccountReply = z.infer<typeof accountSchema>;

export const accountChangeSchema = z.object({
  role: z.enum(GIVEN_ROLES).optional(),
  password: password.optional(),
  /** `null` takes it away. */
  pin: pin.nullable().optional(),
  /** One's own, where one changes what proves who one is. */
  oldPassword: z.string().max(512).optional(),
});

export const sessionSchema = z.object({
  id: z.number(),
  browser: z.string(),
  seenAt: z.string(),
  isThis: z.boolean(),
});
export type SessionReply = z.infer<typeof sessionSchema>;

export const newTokenSchema = z.object({ name, role: z.enum(GIVEN_ROLES) });
export const tokenSchema = z.object({
  id: z.number(),
  name: z.string(),
  role: z.enum(GIVEN_ROLES),
  madeBy: z.string(),
  madeAt: z.string(),
  usedAt: z.string().nullable(),
});
export type TokenReply = z.infer<typeof tokenSchema>;
