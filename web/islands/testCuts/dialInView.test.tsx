import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { composeAnswer, placeOf } from '#core/answer/composeAnswer.ts';
import { DialIn } from '#web/islands/testCuts/DialIn.tsx';
import { JudgedPieces } from '#web/islands/testCuts/JudgedPieces.tsx';
import { previewGrades } from '#web/islands/testCuts/previewGrades.ts';
import { UnknownSheet } from '#web/islands/testCuts/start/UnknownSheet.tsx';
import type { JudgedReply } from '#web/schemas/judgedPieces.ts';
import { sampleAnswer } from '#web/tests/sampleBook.ts';
import { answerOf, cut, opened, station, words } from '#web/tests/sampleDialIn.tsx';

describe('the whole view', () => {
  it('opens with a prediction that asks for a cut, before anybody has started', () => {
    const start = { reply: null, bench: sampleAnswer(station, { answer: answerOf([]), revision: null }) };
    const text = words(
      renderToStaticMarkup(
        <DialIn
          station={station}
          operation="kiss"
          quantities={['kiss', 'through', 'perforated']}
          start={start}
          system="metric"
        />,
      ),
    );
    expect(text).toMatch(/\d+ gf predicted/);
    expect(text).toContain('Only a prediction');
    expect(text).toContain('Tabs');
  });

  it('for an unknown sheet asks only for what can be seen', () => {
    const text = words(
      renderToStaticMarkup(<UnknownSheet machineId={2} machineName="Gannet 600" day="3 March" />),
    );
    expect(text).toContain('What is it most like?');
    expect(text).toContain('laminated');
  });

  it('for tabs shows the proposal, five steps and the kiss force along the tabs', () => {
    const initial: JudgedReply = {
      quantity: 'tabs',
      steps: ['fell out', 'loose', 'right', 'hard to pop', 'tore'],
      pieces: [
        { id: 1, given: { tabLengthMm: 0.8, cutLengthMm: 12 }, seen: 1, author: 'Ines', at: opened.openedAt },
      ],
      proposal: { tabLengthMm: 1.1, cutLengthMm: 12 },
      chances: [0.05, 0.15, 0.62, 0.13, 0.05],
      curve: [
        { value: 0.3, chances: [0.6, 0.3, 0.1, 0, 0] },
        { value: 1.1, chances: [0.05, 0.15, 0.62, 0.13, 0.05] },
      ],
      settingId: null,
      revision: 0,
      kissForce: 106,
    };
    const text = words(
      renderToStaticMarkup(<JudgedPieces station={station} quantities={['perforated']} initial={initial} />),
    );
    expect(text).toContain('Keep 1.1 mm tab / 12 mm cut');
    expect(text).toContain('along the tabs: 106 gf, the kiss force');
    expect(text).toMatch(/0\.8 mm tab \/ 12 mm cut: loose/);
  });
});

describe('a grade shown before the server has it', () => {
  it('is answered by the same function from the same facts as the server answers', () => {
    const loaded = station.loaded!;
    const prior = sheetPrior(placeOf(station, loaded), null);
    const belief = {
      mean: [...prior.mean],
      precision: [...prior.precision],
      tail: prior.tail,
      nearMat: prior.nearMat,
      knowledgeId: 0,
    };
    const bench = sampleAnswer(station, {
      belief,
      cuts: [cut(60, 1)],
      revision: null,
      answer: answerOf([cut(60, 1)]),
    });
    const reply = { dialIn: opened, bench, sheet: '', isLoaded: true };
    const order = previewGrades(
      station,
      'kiss',
      { reply, bench },
      { grades: [{ force: 95, grade: 3, flaws: [] }] },
    )!;
    const here = composeAnswer(order.station, order.operation, order.known, order.cuts, {
      ...order.context,
      belief: {
        ...belief,
        mean: Float64Array.from(belief.mean),
        precision: Float64Array.from(belief.precision),
      },
    });
    const there = composeAnswer(station, 'kiss', null, [cut(60, 1), cut(95, 3, { bladeMetres: 205 })], {
      passes: 1,
      speed: 200,
      exposureMm: 0.3,
      belief: prior,
    });
    expect(here!.advisedForce).toBe(there!.advisedForce);
    expect(here!.window.best).toEqual(there!.window.best);
  });

  it('takes the force of a card from its cell, and asks nothing where nothing is believed', () => {
    const bench = sampleAnswer(station, { belief: { mean: [], precision: [], knowledgeId: 0 } });
    const card = { load: 1, purpose: 'ladder', forces: [60, 80] } as const;
    const reply = { dialIn: { ...opened, card }, bench, sheet: '', isLoaded: true };
    const order = previewGrades(
      station,
      'kiss',
      { reply, bench },
      { load: 1, grades: [{ cell: 1, grade: 3, flaws: [] }] },
    );
    expect(order!.cuts.at(-1)).toMatchObject({ force: 80, load: 1, cell: 1 });
    expect(
      previewGrades(station, 'kiss', { reply: null, bench: sampleAnswer(station) }, { grades: [] }),
    ).toBeNull();
  });
});
