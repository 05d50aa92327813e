import { QueryClientProvider } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { composeAnswer } from '#core/setting/composeAnswer.ts';
import { believeSheet } from '#core/knowledge/believeSheet.ts';
import { placeOf } from '#core/setting/composeAnswer.ts';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { CardGrades } from '#web/islands/testCuts/CardGrades.tsx';
import { CutList } from '#web/islands/testCuts/CutList.tsx';
import { DialIn } from '#web/islands/testCuts/DialIn.tsx';
import { FoundBefore } from '#web/islands/testCuts/FoundBefore.tsx';
import { GradePad } from '#web/islands/testCuts/GradePad.tsx';
import { JudgedPieces } from '#web/islands/testCuts/JudgedPieces.tsx';
import { KeepPanel } from '#web/islands/testCuts/KeepPanel.tsx';
import { NextCut } from '#web/islands/testCuts/NextCut.tsx';
import { previewGrades } from '#web/islands/testCuts/previewGrades.ts';
import { TestPiecePanel } from '#web/islands/testCuts/TestPiecePanel.tsx';
import { UnknownSheet } from '#web/islands/testCuts/UnknownSheet.tsx';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { DialInReply } from '#web/schemas/dialIn.ts';
import type { JudgedReply } from '#web/schemas/judgedPieces.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import { sampleAnswer, sampleMachine, sampleStation } from '#web/tests/sampleBook.ts';

const words = (markup: string) => markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
const render = (view: ReactNode) =>
  renderToStaticMarkup(<QueryClientProvider client={makeQueryClient()}>{view}</QueryClientProvider>);
const nothing = () => undefined;

type Cut = BenchAnswer['cuts'][number];
const cut = (force: number, grade: Cut['grade'], change: Partial<Cut> = {}): Cut => ({
  id: force,
  conditionId: 10,
  machineId: 2,
  operation: 'kiss',
  force,
  forceGf: force,
  speedMmPerS: 200,
  passes: 1,
  exposureMm: 0.3,
  bladeMetres: 100,
  grade,
  flaws: [],
  author: 'Ines',
  lot: '',
  colour: '',
  at: '2026-11-25T10:00:00.000Z',
  dialInId: 4,
  ...change,
});
const station = sampleStation();
const opened: DialInReply['dialIn'] = {
  id: 4,
  machineId: 2,
  conditionId: 10,
  lot: '',
  colour: '',
  operation: 'kiss',
  passes: 1,
  speed: 200,
  exposureMm: 0.3,
  state: 'open',
  loadCount: 0,
  card: null,
  scrap: { widthMm: 150, heightMm: 100, piece: 'square', taken: [] },
  author: 'Tove',
  openedAt: '2026-11-25T09:00:00.000Z',
  changedAt: '2026-11-25T09:30:00.000Z',
  version: 3,
};

function answerOf(cuts: readonly Cut[]) {
  const answer = composeAnswer(station, 'kiss', null, cuts);
  if (!answer) throw new Error('the sample sheet has a kiss cut');
  return answer;
}

function dialOf(change: Partial<Dial> = {}): Dial {
  const cuts = change.cuts ?? [];
  return {
    bench: sampleAnswer(station, { cuts: [...cuts] }),
    dialIn: opened,
    isLoaded: true,
    card: null,
    cuts,
    force: 90,
    passes: 1,
    flaws: [],
    isLayered: true,
    gradedCell: null,
    isBusy: false,
    error: null,
    kept: null,
    keepError: null,
    chooseCell: nothing,
    setForce: nothing,
    nudge: nothing,
    grade: nothing,
    undo: nothing,
    toggleFlaw: nothing,
    gradeCells: nothing,
    change: nothing,
    cutCard: nothing,
    putCardAway: nothing,
    keep: nothing,
    ...change,
  } as unknown as Dial;
}

describe('what to cut next', () => {
  const next = (cuts: readonly Cut[]) => {
    const answer = answerOf(cuts);
    const markup = render(
      <NextCut
        answer={answer}
        machine={sampleMachine}
        dial={dialOf({ cuts: [...cuts], force: answer.advisedForce })}
        system="metric"
      />,
    );
    return { answer, text: words(markup) };
  };

  it('is a force with its gain, exposure, speed and passes', () => {
    const { answer, text } = next([]);
    expect(text).toContain(`A small square in a free corner at ${answer.advisedForce} gf`);
    expect(text).toMatch(/exposure 0\.\d+ mm, .* speed 200 mm\/s passes/);
  });

  it('is the same force again after a grade that nothing pointed to', () => {
    const steady = [cut(60, 1), cut(80, 2), cut(95, 3), cut(115, 4)];
    const { answer, text } = next([...steady, cut(100, 7, { id: 999 })]);
    expect(answer.advice.kind).toBe('repeat');
    expect(text).toMatch(
      /Cut 100 gf once more\. That grade had (less than 1 chance|only \d chances?) in 100/,
    );
  });

  it('is to stop, when another cut is not worth its sheet', () => {
    const { answer, text } = next([cut(70, 2), cut(90, 3), cut(100, 3), cut(115, 4), cut(140, 5)]);
    expect(answer.advice.kind).toBe('keep');
    expect(text).toContain(`Stop cutting: keep ${answer.bestForce} gf.`);
  });

  it('is another way, when no force is likely right', () => {
    const answer = answerOf([cut(90, 3)]);
    const hopeless = {
      ...answer,
      advice: { kind: 'noWindow', next: { ...answer.advice.next, chanceNow: 0.31 } },
    } as const;
    const text = words(
      render(<NextCut answer={hopeless} machine={sampleMachine} dial={dialOf()} system="inch" />),
    );
    expect(text).toMatch(/No force works well here\. .* cuts right only 31 times in 100/);
  });
});

describe('keeping', () => {
  const panel = (cuts: readonly Cut[], change: Partial<Dial> = {}) =>
    words(
      render(
        <KeepPanel
          answer={answerOf(cuts)}
          machine={sampleMachine}
          dial={dialOf({ cuts: [...cuts], ...change })}
          revision={null}
        />,
      ),
    );

  it('is not offered for a prediction', () => {
    expect(panel([])).toContain('Only a prediction. It asks for a cut before it can be kept.');
    expect(panel([])).not.toMatch(/Keep \d+ gf/);
  });

  it('says how sure it is and why not surer', () => {
    const text = panel([cut(80, 2), cut(95, 3)]);
    expect(text).toMatch(/cuts right \d+ times in 100/);
    expect(text).toMatch(/the rest: (\d+ too shallow)?(, )?(\d+ too deep)?/);
    expect(text).toMatch(/Keep \d+ gf/);
  });

  it('tells what the evidence moved elsewhere, or that nothing did', () => {
    const moved = [
      { name: 'Spindrift clear film', percent: 3.24 },
      { name: 'Capstan vinyl', percent: -1.2 },
    ];
    const kept = (list: typeof moved) =>
      panel([cut(95, 3)], { kept: { revision: 1, settingId: 7, moved: list } });
    expect(kept(moved)).toMatch(/Spindrift clear film \+3\.2 % Capstan vinyl −1\.2 %/);
    expect(kept([])).toContain('No other prediction of the book moved');
  });
});

describe('grading', () => {
  it('has a picture and a word for each grade the sheet can show, and every flaw', () => {
    const layered = words(render(<GradePad isLayered dial={dialOf()} />));
    const single = words(render(<GradePad isLayered={false} dial={dialOf()} />));
    for (const word of [
      'untouched',
      'partial',
      'hanging',
      'clean',
      'scored',
      'gouged',
      'breached',
      'parted',
      'scarred',
    ]) {
      expect(layered).toContain(word);
    }
    expect(single).not.toContain('gouged');
    expect(layered).toContain('torn or bunched');
  });

  it('of a card shows its cells by zone, its two marks in words, and what is graded already', () => {
    const card = { load: 2, purpose: 'ladder', forces: [60, 75, 90, 110, 135, 160] } as const;
    const graded = [cut(60, 1, { load: 2, cell: 0 })];
    const text = words(
      render(<CardGrades dial={dialOf({ card, cuts: graded })} card={card} operation="kiss" unit="gf" />),
    );
    expect(text).toContain('Ladder card, 6 forces in one load');
    expect(text).toMatch(/60 partial 75 under 90 right 110 right 135 over 160 over/);
    expect(text).toContain('from here it lifts 90 gf');
    expect(text).toContain('from here the liner is cut 135 gf');
    expect(text).toContain('Record the other 5 cells');
  });

  it('names the cell that is graded exactly', () => {
    const card = { load: 1, purpose: 'confirm', forces: [88, 96, 104] } as const;
    expect(words(render(<GradePad isLayered dial={dialOf({ card, gradedCell: 1 })} />))).toContain(
      'Cell 2, 96: what do you see?',
    );
  });
});

describe('the cuts so far', () => {
  it('stand newest first, ranges as ranges; only the last can be taken back', () => {
    const cuts = [cut(60, 1), cut(75, 0, { upTo: 2 }), cut(90, 3)];
    const markup = render(<CutList cuts={cuts} unit="gf" onUndo={nothing} isBusy={false} isOpen />);
    expect(words(markup)).toMatch(/90 gf clean .* 75 gf untouched to hanging .* 60 gf partial/);
    expect(markup.match(/Take back the cut at (\d+)/g)).toEqual(['Take back the cut at 90']);
    const closed = render(<CutList cuts={cuts} unit="gf" onUndo={nothing} isBusy={false} isOpen={false} />);
    expect(closed).not.toContain('Take back');
  });
});

describe('whose search it is', () => {
  it('names who opened it and who helps, and warns when another sheet lies there', () => {
    const text = words(render(<FoundBefore dial={dialOf({ cuts: [cut(90, 3)] })} station={station} />));
    expect(text).toMatch(/Opened by Tove, .*, with Ines/);
    expect(words(render(<FoundBefore dial={dialOf({ isLoaded: false })} station={station} />))).toContain(
      'Another sheet lies on Gannet 600 by now',
    );
  });
});

describe('the test piece', () => {
  it('says what it shows and how much of the scrap is taken', () => {
    const taken = [{ minX: 10, minY: 10, maxX: 40, maxY: 25 }];
    const dialIn = { ...opened, scrap: { ...opened.scrap, piece: 'star' as const, taken } };
    const text = words(render(<TestPiecePanel dial={dialOf({ dialIn })} />));
    expect(text).toContain('whether fine points hold or tear');
    expect(text).toContain('Scrap of 150 × 100 mm; one place is taken');
  });
});

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
    const prior = believeSheet(placeOf(station, loaded), null);
    const belief = { mean: [...prior.mean], precision: [...prior.precision], knowledgeId: 0 };
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
      belief: { mean: Float64Array.from(belief.mean), precision: Float64Array.from(belief.precision) },
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
