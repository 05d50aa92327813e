import { z } from 'zod';
import { dropRoleRule, keepRoleRule, listRoleRules } from '#store/repositories/jobs/roleRules.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { roleRuleSchema } from '#web/schemas/job.ts';

const rules = z.array(roleRuleSchema.and(z.object({ id: z.number() }))).readonly();

export const getRoleRules = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/role-rules',
  summary: "The workshop's rules: which lines take which role.",
  reply: rules,
  handle: (_, { store }) => listRoleRules(store),
});

export const postRoleRule = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/role-rules',
  summary: 'Keeps a rule; one that asks the same is replaced.',
  body: roleRuleSchema,
  reply: rules,
  status: 201,
  handle: async ({ body, author }, { store }) => {
    await keepRoleRule(store, body, author, new Date());
    return listRoleRules(store);
  },
});

export const deleteRoleRule = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/role-rules/{id}',
  summary: 'Drops a rule. Jobs keep the roles they have.',
  params: z.object({ id: idParam }),
  reply: rules,
  handle: async ({ params }, { store }) => {
    await dropRoleRule(store, params.id);
    return listRoleRules(store);
  },
});
