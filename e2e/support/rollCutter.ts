/** A roll-fed cutter in gram-force to add for a journey of its own; named by the journey. */
export function rollCutter(name: string) {
  return {
    name,
    kind: 'rollFed',
    bedWidthMm: 300,
    bedLengthMm: 1000,
    marginMm: 5,
    forceScale: { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
    speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
    depthScale: { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 },
    accelerationMmPerS2: 2000,
    travelSpeedMmPerS: 300,
    numbersOwner: 'file',
    hpglUnitsPerMm: 40,
    link: { kind: 'none' },
  };
}
