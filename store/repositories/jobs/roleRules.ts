import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { ROLES } from '#core/drawing/roles/lineRoles.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { flagColumn } from '#store/rows/jsonColumn.ts';

/** A kept rule. */
export interface KeptRule extends RoleRule {
  readonly id: number;
}

const ruleRow = z.object({
  id: z.number(),
  layer: z.string().nullable(),
  colour: z.string().nullable(),
  is_dashed: flagColumn.nullable(),
  role: z.enum(ROLES),
});

/** The workshop's rules, the oldest first. */
export async function listRoleRules(db: Store): Promise<readonly KeptRule[]> {
  const rows: unknown[] = await db('role_rules').orderBy('id');
  return rows.map((row) => {
    const { is_dashed: isDashed, ...rule } = ruleRow.parse(row);
    return { ...rule, isDashed };
  });
}

/** Keeps a rule; one that asks the same is replaced. */
export async function keepRoleRule(db: Store, rule: RoleRule, author: string, now: Date): Promise<void> {
  const { layer, colour, isDashed, role } = rule;
  await db.transaction(async (transaction) => {
    await transaction('role_rules').where({ layer, colour, is_dashed: isDashed }).delete();
    await transaction('role_rules').insert({
      layer,
      colour,
      is_dashed: isDashed,
      role,
      author,
      made_at: now,
    });
  });
}

/** @throws AppError `notFound` */
export async function dropRoleRule(db: Store, id: number): Promise<void> {
  if ((await db('role_rules').where({ id }).delete()) > 0) return;
  throw new AppError('notFound', `there is no rule ${id}`);
}
