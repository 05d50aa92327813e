import { describe, expect, it } from 'vitest';
import { sampleAnswer, sampleMachine, sampleMaterial, sampleSetting } from '#web/tests/sampleBook.ts';
import { machineSchema, materialSchema } from '#web/schemas/station.ts';
import { benchAnswerSchema, settingSummarySchema } from '#web/schemas/setting.ts';

describe('the samples that views are drawn from in tests', () => {
  it('are what the HTTP interface would say', () => {
    expect(materialSchema.parse(sampleMaterial)).toMatchObject({ name: sampleMaterial.name });
    expect(machineSchema.parse(sampleMachine)).toMatchObject({ name: sampleMachine.name });
    expect(settingSummarySchema.parse(sampleSetting())).toMatchObject({ id: 7 });
    expect(benchAnswerSchema.parse(sampleAnswer())).toMatchObject({ settingId: 7 });
  });
});
