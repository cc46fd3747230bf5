/** @jest-environment ./scripts/dom.mjs */
import { render } from '@testing-library/react';
import { SmallPicture } from './SmallPicture';

const shownAt = (rest?: number): string => {
  const { container } = render(<SmallPicture src="a.webp" moments={5} rest={rest} moving={false} />);
  return (container.firstElementChild as HTMLElement).style.backgroundPosition;
};

test('at rest a small picture shows its last moment, or the one that is named', () => {
  expect([shownAt(), shownAt(0), shownAt(1)]).toEqual(['100% 0px', '0% 0px', '25% 0px']);
});
