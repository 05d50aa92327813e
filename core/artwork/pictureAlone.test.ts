import { expect, it } from 'vitest';
import { pictureAlone } from '#core/artwork/pictureAlone.ts';

const image = (data: string, more = '') =>
  `<svg width="9mm">${more}<image x="0" xlink:href='${data}'/></svg>`;
const PNG = 'data:image/png;base64,iVBO\n  Rw0K';

it('is found where an SVG holds nothing else, whatever its line breaks', () => {
  expect(pictureAlone(image(PNG))).toBe('data:image/png;base64,iVBORw0K');
  expect(pictureAlone(image(PNG, '<metadata>path</metadata><g id="rect"></g>'))).not.toBeNull();
});

it.each([
  ['a line beside it', image(PNG, '<path d="M0 0L1 1"/>')],
  ['two of them', image(PNG, `<image href="${PNG}"/>`)],
  ['one outside the file', image('fox.png')],
  ['no picture', '<svg><g/></svg>'],
])('is none with %s', (_, svg) => {
  expect(pictureAlone(svg)).toBeNull();
});
