/** A film to add for a journey of its own, described as far as an eye can; named by the journey. */
export function unknownFilm(name: string) {
  return {
    name,
    maker: 'unknown',
    family: 'printableVinyl',
    finish: '',
    colourName: 'pale',
    colourHex: '#f4f2ec',
    darkness: 0,
    stack: [
      { role: 'face', caliperUm: 85, isMeasured: false },
      { role: 'adhesive', caliperUm: 25, isMeasured: false },
      { role: 'liner', caliperUm: 130, isMeasured: false },
    ],
  };
}
