import { describe, expect, it } from 'vitest';
import { CardGrades } from '#web/islands/testCuts/CardGrades.tsx';
import { CutList } from '#web/islands/testCuts/CutList.tsx';
import { FoundBefore } from '#web/islands/testCuts/start/FoundBefore.tsx';
import { GradePad } from '#web/islands/testCuts/GradePad.tsx';
import { KeepPanel } from '#web/islands/testCuts/KeepPanel.tsx';
import { NextCut } from '#web/islands/testCuts/NextCut.tsx';
import { TestPiecePanel } from '#web/islands/testCuts/TestPiecePanel.tsx';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import { sampleMachine } from '#web/tests/sampleBook.ts';
import {
  answerOf,
  cut,
  dialOf,
  nothing,
  opened,
  render,
  station,
  words,
  type Cut,
} from '#web/tests/sampleDialIn.tsx';

const scale = sampleMachine.forceScale;

describe('what to cut next', () => {
  const next = (cuts: readonly Cut[]) => {
    const answer = answerOf(cuts);
    const markup = render(
      <NextCut
        answer={answer}
        machine={sampleMachine}
        dial={dialOf({ cuts: [...cuts], force: answer.advisedForce })}
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
    const text = words(render(<NextCut answer={hopeless} machine={sampleMachine} dial={dialOf()} />));
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
    expect(kept([])).toContain('No other prediction moved');
  });
});

describe('grading', () => {
  it('has a picture and a word for each grade the sheet can show, and every flaw', () => {
    const layered = words(render(<GradePad dial={dialOf()} scale={scale} />));
    const single = words(render(<GradePad dial={dialOf({ isLayered: false })} scale={scale} />));
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

  it('of a card grades nothing that nobody saw: its marks wait to be set', () => {
    const card = { load: 2, purpose: 'ladder', forces: [60, 75, 90, 110, 135, 160] } as const;
    const graded = [cut(60, 1, { load: 2, cell: 0 })];
    const text = words(
      render(
        <CardGrades
          dial={dialOf({ card, cuts: graded })}
          card={card}
          operation="kiss"
          unit="gf"
          dials={[]}
        />,
      ),
    );
    expect(text).toContain('Ladder card, 6 forces in one load');
    expect(text).toMatch(/60 partial 75 not graded 90 not graded/);
    expect(text).toContain('from here it lifts not set');
    expect(text).toContain('Move both marks, or tap them where they stand, before you record');
    expect(text).toContain('Record the other 5 cells');
  });

  it('names the cell that is graded exactly', () => {
    const card = { load: 1, purpose: 'confirm', forces: [88, 96, 104] } as const;
    const pad = <GradePad dial={dialOf({ card, gradedCell: 1 })} scale={scale} />;
    expect(words(render(pad))).toContain('Cell 2, 96: what do you see?');
  });

  it('names the piece that lies there, whatever is dialled meanwhile', () => {
    const pad = <GradePad dial={dialOf({ force: 90, lyingForce: 83 })} scale={scale} />;
    expect(words(render(pad))).toContain('What do you see of the piece at 83 gf? One tap records it.');
  });
});

describe('the cuts so far', () => {
  it('stand newest first, ranges as ranges; only the last can be taken back', () => {
    const cuts = [cut(60, 1), cut(75, 0, { upTo: 2 }), cut(90, 3)];
    const markup = render(
      <CutList cuts={cuts} unit="gf" onUndo={nothing} onFlaws={nothing} isBusy={false} isOpen />,
    );
    expect(words(markup)).toMatch(/90 gf clean .* 75 gf untouched to hanging .* 60 gf partial/);
    expect(markup.match(/Take back the cut at (\d+)/g)).toEqual(['Take back the cut at 90']);
    const closed = render(
      <CutList cuts={cuts} unit="gf" onUndo={nothing} onFlaws={nothing} isBusy={false} isOpen={false} />,
    );
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
