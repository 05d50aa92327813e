import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { Knowledge } from '#web/islands/knowledge/Knowledge.tsx';
import type { KnowledgeReply } from '#web/schemas/knowledge.ts';

const words = (markup: string) => markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
const effect = (change: Partial<KnowledgeReply['effects'][number]>): KnowledgeReply['effects'][number] => ({
  name: 'machine:1',
  label: 'Gannet 600',
  group: 'machines',
  mean: 0.1,
  sd: 0.04,
  priorMean: 0,
  priorSd: 0.12,
  learnt: 0.9,
  words: 'Gannet 600 wants 10 % less than its scale says (± 4 %), from 31 trials.',
  ...change,
});
const reply: KnowledgeReply = {
  id: 3,
  model: 'hierarchical 1',
  at: '2026-11-25T10:00:00.000Z',
  milliseconds: 340,
  trialCount: 82,
  sheetCount: 14,
  effects: [
    effect({}),
    effect({
      name: 'wear',
      label: 'a blade at 500 m',
      group: 'cutting',
      mean: 0.2,
      words: 'A blade wants more.',
    }),
  ],
  priors: [
    {
      name: 'wear',
      mean: 0.3,
      sd: 0.1,
      reason: 'our card is hard on blades',
      commonMean: 0.2,
      commonSd: 0.1,
      commonReason: 'per ln(1 + metres / 500)',
      author: 'Tove',
    },
  ],
  usualForces: [
    {
      family: 'plainVinyl',
      name: 'plain vinyl',
      usualGf: 25,
      commonGf: 70,
      reason: '',
      author: 'Tove',
    },
  ],
  refit: { state: 'idle', iteration: 0, trialCount: 82, problem: '' },
};
const draw = (change: Partial<KnowledgeReply> = {}) =>
  renderToStaticMarkup(
    <Knowledge initial={{ ...reply, ...change }} sharing={{ taken: [], canGive: true }} isOwner />,
  );

describe('what the book has taught', () => {
  it('says each effect in a sentence, with what was believed before and the own beliefs of the workshop', () => {
    const text = words(draw());
    expect(text).toContain('Fit 3: 82 trials of 14 sheets');
    expect(text).toContain('from 31 trials.');
    expect(text).toContain('1 of 1 are your own');
    expect(text).toMatch(/Tove.*s own; commonly 0\.20 ± 0\.10/);
  });

  it('draws a machine that cuts deeper as wanting less force: left of the middle, inside its old belief', () => {
    const markup = draw();
    const [, circle] = /<circle cx="([\d.]+)%"/.exec(markup) ?? [];
    expect(Number(circle)).toBeLessThan(50);
    expect(Number(circle)).toBeGreaterThan(35);
    expect(markup).toMatch(
      /aria-label="Gannet 600: 0\.10 ± 0\.07 in ln force, believed before 0\.00 ± 0\.20"/,
    );
  });

  it('shows progress and a stop while it fits, and says so before the first fit', () => {
    expect(words(draw({ refit: { ...reply.refit, state: 'running', iteration: 4 } }))).toMatch(
      /Fitting 82 trials, step 4… Stop/,
    );
    expect(words(draw({ id: 0, effects: [] }))).toContain('every answer starts from common beliefs');
    expect(
      words(draw({ refit: { ...reply.refit, problem: 'stopped; what was known before stays' } })),
    ).toContain('stopped;');
  });
});
