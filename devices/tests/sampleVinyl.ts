/** Only for tests: a plain vinyl as hands would know it. @param key another key is another make, with resistances of its own */
export const sampleVinyl = (key: string) => ({
  key,
  family: 'plainVinyl',
  darkness: 0,
  layers: [
    { role: 'face', caliperUm: 70 },
    { role: 'adhesive', caliperUm: 22 },
    { role: 'liner', caliperUm: 130 },
  ],
});
