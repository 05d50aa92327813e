import { getRoleRules, postRoleRule } from '#web/endpoints/roleRules.ts';

export const GET = getRoleRules.serve;
export const POST = postRoleRule.serve;
