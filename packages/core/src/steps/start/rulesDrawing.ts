import type { Drawing } from '../../curves/rules/turtle';
import type { RulesParams } from './rules';

type Drawn = Pick<RulesParams, 'generations' | 'growing' | 'angle' | 'vary' | 'thinner' | 'rising' | 'marks'>;

/** How rules are drawn by a step's numbers, which are in degrees. */
export function drawingOf(p: Drawn, length: Drawing['length'], seed: number): Drawing {
  const radians = Math.PI / 180;
  return {
    age: p.generations,
    growing: p.growing,
    length,
    angle: p.angle * radians,
    vary: p.vary * radians,
    thinner: p.thinner,
    rising: p.rising * radians,
    marks: new Set([...p.marks.replace(/\s/g, '')]),
    seed,
  };
}
