import { z } from 'zod';
import { describeEffects } from '#core/knowledge/describeEffects.ts';
import { FAMILIES, factsOf } from '#core/stack/families/families.ts';
import { BELIEFS, FAMILY_HABITS, type BeliefName } from '#core/threshold/thresholdPriors.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  dropPrior,
  dropUsual,
  listOwnPriors,
  listOwnUsuals,
  setPrior,
  setUsual,
} from '#store/repositories/dialIn/knowledge.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { countTestCuts } from '#store/repositories/dialIn/testCuts.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { readKnowledge } from '#web/endpoints/bench/readSheetPrior.ts';
import {
  beliefNameSchema,
  knowledgeReplySchema,
  newPriorSchema,
  newUsualForceSchema,
  type KnowledgeReply,
} from '#web/schemas/knowledge.ts';
import { refitNow, refitStatus, requestRefit, stopRefit, untilWatched } from '#web/workers/refitKnowledge.ts';

const priorParams = z.object({ name: beliefNameSchema });

export const getKnowledge = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/knowledge',
  summary:
    'What your cuts have taught: every shared effect in words and figures, and the beliefs it started from.',
  reply: knowledgeReplySchema,
  handle: (_, { store }) => describeKnowledge(store),
});

export const postRefit = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'harmless',
  path: '/api/knowledge/refits',
  summary: 'Fits the whole book now, in a thread of its own, and replies when it is done or stopped.',
  reply: knowledgeReplySchema,
  handle: async (_, context) => {
    await refitNow(context);
    await untilWatched();
    return describeKnowledge(context.store);
  },
});

export const deleteRefit = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  change: 'harmless',
  path: '/api/knowledge/refits',
  summary: 'Stops a fit under way. What was known before stays.',
  reply: knowledgeReplySchema,
  handle: async (_, { store }) => {
    await stopRefit();
    return describeKnowledge(store);
  },
});

export const putPrior = defineEndpoint({
  method: 'PUT',
  role: 'owner',
  path: '/api/knowledge/priors/{name}',
  summary: "Puts the workshop's own belief in place of the common one; the book is fitted anew.",
  params: priorParams,
  body: newPriorSchema,
  reply: knowledgeReplySchema,
  handle: async ({ params, body, author }, context) => {
    await setPrior(context.store, { ...body, name: params.name, author }, new Date());
    context.afterwards(requestRefit);
    return describeKnowledge(context.store);
  },
});

export const deletePrior = defineEndpoint({
  method: 'DELETE',
  role: 'owner',
  path: '/api/knowledge/priors/{name}',
  summary: 'Goes back to the common belief.',
  params: priorParams,
  reply: knowledgeReplySchema,
  handle: async ({ params }, context) => {
    await dropPrior(context.store, params.name);
    context.afterwards(requestRefit);
    return describeKnowledge(context.store);
  },
});

const familyParams = z.object({ family: z.enum(FAMILIES) });

export const putUsualForce = defineEndpoint({
  method: 'PUT',
  role: 'owner',
  path: '/api/knowledge/usual-forces/{family}',
  summary: 'What a family of sheets usually takes in this workshop, gf; the book is fitted anew.',
  params: familyParams,
  body: newUsualForceSchema,
  reply: knowledgeReplySchema,
  handle: async ({ params, body, author }, context) => {
    await setUsual(context.store, { ...body, family: params.family, author }, new Date());
    context.afterwards(requestRefit);
    return describeKnowledge(context.store);
  },
});

export const deleteUsualForce = defineEndpoint({
  method: 'DELETE',
  role: 'owner',
  path: '/api/knowledge/usual-forces/{family}',
  summary: 'Goes back to the common usual force of a family.',
  params: familyParams,
  reply: knowledgeReplySchema,
  handle: async ({ params }, context) => {
    await dropUsual(context.store, params.family);
    context.afterwards(requestRefit);
    return describeKnowledge(context.store);
  },
});

/** The knowledge as views and scripts read it. */
export async function describeKnowledge(store: Store): Promise<KnowledgeReply> {
  const [{ kept, priors }, own, usuals, machines, trialsOf] = await Promise.all([
    readKnowledge(store),
    listOwnPriors(store),
    listOwnUsuals(store),
    listMachines(store, true),
    countTestCuts(store),
  ]);
  const names = new Map(machines.map(({ id, name }) => [id, name]));
  return {
    id: kept?.id ?? 0,
    model: kept?.fitted.model ?? '',
    at: kept?.at ?? null,
    milliseconds: kept?.milliseconds ?? 0,
    trialCount: kept?.fitted.trialCount ?? 0,
    sheetCount: kept?.fitted.sheetCount ?? 0,
    effects: kept ? describeEffects(kept.fitted, priors, names, trialsOf) : [],
    priors: (Object.keys(BELIEFS) as BeliefName[]).map((name) => {
      const common = BELIEFS[name];
      const { mean, sd, reason } = priors.beliefs[name];
      return {
        name,
        mean,
        sd,
        reason,
        commonMean: common.mean,
        commonSd: common.sd,
        commonReason: common.reason,
        author: own.find((one) => one.name === name)?.author ?? '',
      };
    }),
    usualForces: FAMILIES.map((family) => {
      const given = usuals.find((one) => one.family === family);
      return {
        family,
        name: factsOf(family).name,
        usualGf: priors.habits[family].usualGf,
        commonGf: FAMILY_HABITS[family].usualGf,
        reason: given?.reason ?? '',
        author: given?.author ?? '',
      };
    }),
    refit: refitStatus(),
  };
}
