import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { SYMPTOMS } from '#core/faults/symptoms.ts';
import { SymptomPicture } from '#web/components/symptomPicture/SymptomPicture.tsx';
import { FaultAdvice } from '#web/islands/faults/FaultAdvice.tsx';
import { OpenCases } from '#web/islands/faults/OpenCases.tsx';
import type { FaultDesk } from '#web/islands/faults/useFaults.ts';
import type { ConsultReply } from '#web/schemas/faults.ts';

const words = (markup: string) =>
  markup
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .replaceAll('&#x27;', "'");
const reply: ConsultReply = {
  causes: [
    { cause: 'bladeDull', chance: 0.62, words: 'a dull blade', reason: 'a blunt tip pushes the sheet' },
    { cause: 'forceLow', chance: 0.2, words: 'a little too little force', reason: 'corners need the most' },
  ],
  known: ['the blade is near its end'],
  question: { evidence: 'oneSpot', words: 'Does fluff hang on the tip?', bits: 0.3 },
  actions: [
    {
      action: 'cleanBlade',
      words: 'clean the blade',
      how: 'holder out',
      caution: 'Power off first.',
      link: '/upkeep',
      mends: 0.4,
      change: null,
    },
    {
      action: 'moreForce',
      words: 'a little more force',
      how: 'one step up',
      caution: null,
      link: null,
      mends: 0.35,
      change: { number: 'force', from: 62, to: 66, words: '62 to 66 gf' },
    },
  ],
  revision: 2,
};
const desk = (change: Partial<FaultDesk> = {}) =>
  ({
    asked: { symptoms: ['notThrough'], operation: 'kiss', answers: {}, tried: [] },
    reply,
    cases: [],
    error: null,
    ...change,
  }) as unknown as FaultDesk;

describe('what is said about a fault', () => {
  it('tells causes with their chance and reason, what the log knows, and the question', () => {
    const said = words(renderToStaticMarkup(<FaultAdvice desk={desk()} />));
    expect(said).toMatch(/62 % a dull blade a blunt tip pushes the sheet/);
    expect(said).toMatch(/The log knows: the blade is near its end/);
    expect(said).toMatch(/Does fluff hang on the tip\? Yes No/);
  });

  it('puts the number to change on the button, and the caution where hands go to the blade', () => {
    const said = words(renderToStaticMarkup(<FaultAdvice desk={desk()} />));
    expect(said).toMatch(/clean the blade helps 40 in 100 holder out. Open it. Power off first. I do this/);
    expect(said).toMatch(/a little more force · 62 to 66 gf helps 35 in 100 .*Set 62 to 66 gf/);
  });

  it('says what to do before anything is tapped, while it waits, and when nothing is left', () => {
    const asked = { symptoms: [], operation: 'kiss', answers: {}, tried: [] } as const;
    expect(words(renderToStaticMarkup(<FaultAdvice desk={desk({ asked, reply: null })} />))).toMatch(
      /Tap what you see/,
    );
    expect(words(renderToStaticMarkup(<FaultAdvice desk={desk({ reply: null })} />))).toMatch(/Weighing it/);
    const none = desk({ reply: { ...reply, actions: [], question: null } });
    expect(words(renderToStaticMarkup(<FaultAdvice desk={none} />))).toMatch(
      /Nothing left that is worth a sheet/,
    );
  });

  it('asks whether it helped, and has a picture for everything that can be seen', () => {
    const found = {
      id: 4,
      machineId: 1,
      conditionId: 1,
      operation: 'kiss',
      symptoms: ['cornersHang'],
      cause: 'forceLow',
      action: 'moreForce',
      changeWords: '62 to 66 gf',
      hasHelped: null,
      author: 'Ines',
      at: '2026-03-01T10:00:00.000Z',
    } as const;
    const said = words(renderToStaticMarkup(<OpenCases cases={[found]} onAnswer={() => undefined} />));
    expect(said).toMatch(
      /a little more force 62 to 66 gf against “corners hang, the rest lifts”.*It helped It did not/,
    );
    expect(renderToStaticMarkup(<OpenCases cases={[]} onAnswer={() => undefined} />)).toBe('');
    const pictures = SYMPTOMS.map((symptom) => renderToStaticMarkup(<SymptomPicture symptom={symptom} />));
    expect(new Set(pictures).size).toBe(SYMPTOMS.length);
  });
});
