import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { BenchCard } from '#web/islands/bench/BenchCard.tsx';
import { KeptAnswer } from '#web/islands/bench/KeptAnswer.tsx';
import { RelativeList } from '#web/islands/shared/RelativeList.tsx';
import { sampleAnswer, sampleSetting, sampleStation } from '#web/tests/sampleBook.ts';
import type { BenchAnswers } from '#web/schemas/bench.ts';

const none = { ...sampleAnswer(), answer: null, revision: null };
const draw = (answers: Partial<BenchAnswers> = {}, station = sampleStation()) =>
  renderToStaticMarkup(
    <BenchCard
      station={station}
      answers={{ kiss: sampleAnswer(station), through: sampleAnswer(station), others: [], ...answers }}
      system="metric"
    />,
  );
const words = (markup: string) =>
  markup
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .replaceAll('&#x27;', "'");

describe('the Bench', () => {
  it('says what to set in the units of the machine, how sure that is and on what it rests', () => {
    const said = words(draw());
    expect(said).toMatch(
      /force 106 gf exposure · ¾ turn from flush 0\.38 mm speed 200 mm\/s offset 0\.25 mm 1 pass/,
    );
    expect(said).toMatch(/Ines kept 106 gf: gulls lift clean/);
    expect(said).toMatch(/3 clean, 1 with some spoiled.*corner hung on one gull/);
    expect(said).toContain('proven · 4 runs');
  });

  it('leads to the material, to the history of the setting and to a test cut', () => {
    const markup = draw();
    for (const href of ['/materials/1', '/settings/7', '/test-cuts?operation=kiss']) {
      expect(markup).toContain(`href="${href}"`);
    }
  });

  it('puts what a colour wants on the force, and says so', () => {
    const navy = sampleStation({ colour: 'navy' });
    const said = words(draw({}, navy));
    expect(said).toMatch(/\+6 % for navy 112 gf/);
  });

  it('begins with through where there is nothing to kiss down to, and offers no score on a liner', () => {
    const markup = draw({ kiss: none });
    expect(markup).toMatch(/disabled=""[^>]*>(?:(?!<\/button>).)*Kiss/);
    expect(draw()).toMatch(/disabled=""[^>]*>(?:(?!<\/button>).)*Score/);
    expect(words(markup)).toContain('Section, cut through');
  });

  it('says why a setting is doubted', () => {
    const bench = sampleAnswer();
    const answer = { ...bench.answer!, state: 'doubted' as const, stateReason: 'lot 27-A is new to it' };
    expect(words(draw({ kiss: { ...bench, answer } }))).toMatch(/doubted.*lot 27-A is new to it/);
  });
});

describe('what is kept for the other operations', () => {
  const perforated = sampleSetting({
    operation: 'perforated',
    revision: {
      ...sampleSetting().revision,
      values: {
        ...sampleSetting().revision.values,
        force: 235,
        tabForce: 106,
        cutLengthMm: 14,
        tabLengthMm: 0.8,
      },
    },
  });
  const draw = (
    setting: typeof perforated | null,
    operation = 'perforated' as const,
    system = 'metric' as 'metric' | 'inch',
  ) =>
    renderToStaticMarkup(
      <KeptAnswer operation={operation} setting={setting} station={sampleStation()} system={system} />,
    );

  it('shows cut force, tab force, cut and tab length, and that the tab force is the kiss force', () => {
    const said = words(draw(perforated));
    expect(said).toMatch(
      /force 235 gf along tabs · the kiss force 106 gf cut length 14\.0 mm tab length 0\.8 mm/,
    );
    expect(words(draw(perforated, 'perforated', 'inch'))).toMatch(/0\.55 in/);
  });

  it('leads to keeping one when there is none, for this sheet, machine and blade', () => {
    const markup = draw(null);
    expect(words(markup)).toContain('Nothing kept for this yet.');
    expect(markup.replaceAll('&amp;', '&')).toContain(
      '/settings/new?conditionId=10&machineId=2&bladeKind=45%C2%B0+fine&operation=perforated',
    );
  });

  it('names the tool of a crease and its offset of zero', () => {
    const values = { ...sampleSetting().revision.values, tool: 'ball 1.5 mm', offsetMm: 0 };
    const crease = sampleSetting({ operation: 'crease', revision: { ...sampleSetting().revision, values } });
    const markup = renderToStaticMarkup(
      <KeptAnswer operation="crease" setting={crease} station={sampleStation()} system="metric" />,
    );
    expect(words(markup)).toContain('ball 1.5 mm, offset 0');
  });
});

describe('nearest relatives', () => {
  it('say why they are near and where to start, and nothing at all when there are none', () => {
    const relative = {
      settingId: 9,
      name: 'Capstan vinyl',
      machine: 'Dunlin desk',
      state: 'tried',
      reasons: ['same family', 'it is thinner by 20 µm'],
      force: 8,
      forceUnit: 'level',
      startForce: 74,
      impliedForce: 87,
    } as const;
    const said = words(renderToStaticMarkup(<RelativeList relatives={[relative]} unit="gf" />));
    expect(said).toMatch(
      /Capstan vinyl.*same family · it is thinner by 20 µm\. Cut at level 8 on Dunlin desk\. It speaks for 87 gf here/,
    );
    expect(renderToStaticMarkup(<RelativeList relatives={[]} unit="gf" />)).toBe('');
  });
});
