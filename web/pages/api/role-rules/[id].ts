import { deleteRoleRule } from '#web/endpoints/roleRules.ts';

export const DELETE = deleteRoleRule.serve;
