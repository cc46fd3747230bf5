import { converter, interpolate, type Rgb } from 'culori';
import { gradientTable } from '../../geometry/gradient';
import { newStep } from '../../scene/make';
import { form, line } from '../../../test/paths';

// culori mixes in Oklab by its own code; between colours both have in common what is inside sRGB.
test.each([
  ['#2f5d3a', '#e3f29a'],
  ['#ff8a5b', '#0e1a2b'],
  ['#ffffff', '#000000'],
  ['#66d3c8', '#a99bff'],
])('a gradient from %s to %s runs as another library mixes it', (from, to) => {
  const table = gradientTable(
    [
      { at: 0, color: from },
      { at: 1, color: to },
    ],
    11,
  );
  const mixed = interpolate([from, to], 'oklab');
  const linear = converter('lrgb');
  for (let i = 0; i <= 10; i++) {
    const { r, g, b } = linear(mixed(i / 10)) as unknown as Rgb;
    [r, g, b].forEach((value, c) => expect(table[3 * i + c]).toBeCloseTo(Math.min(1, Math.max(0, value)), 4));
  }
});

// Half way from black to white its lightness is a half, which is the cube root of its light: Ottosson, A perceptual color space for
// image processing, 2020.
test('half way from black to white is an eighth of the light', () => {
  const [, , , r, g, b] = gradientTable(
    [
      { at: 0, color: '#000000' },
      { at: 1, color: '#ffffff' },
    ],
    3,
  );
  for (const channel of [r, g, b]) expect(channel).toBeCloseTo(0.125, 4);
});

test('the glow of a tip falls off with the square of the way behind it, and ends where its length is over', async () => {
  const tube = newStep('tube', { radius: 0.05, swell: 0, sides: 6, start: 'flat', end: 'flat' });
  const finish = newStep('finish', { glow: 1.5, glowLength: 0.5 });
  const { mesh } = await form([line(2, 201), newStep('grow', { to: 0.75 }), tube, finish]);
  let lit = 0;
  for (let i = 0; i < mesh!.positions.length / 3; i++) {
    // The line stands upright, grown to 1.5 m.
    const behind = 1.5 - mesh!.positions[3 * i + 1];
    const expected = behind < 0.5 ? 1.5 * (1 - behind / 0.5) ** 2 : 0;
    expect(mesh!.glow![i]).toBeCloseTo(expected, 3);
    lit += Number(expected > 0);
  }
  expect(lit).toBeGreaterThan(100);
});
