import { type StepDeclaration } from './declare';
import { finish } from './finish/finish';
import { grow } from './grow/grow';
import { bend } from './shape/bend';
import { noise } from './shape/noise';
import { respace } from './shape/respace';
import { smooth } from './shape/smooth';
import { strands } from './shape/strands';
import { transform } from './shape/transform';
import { twist } from './shape/twist';
import { wave } from './shape/wave';
import { sweep } from './skin/sweep';
import { tube } from './skin/tube';
import { arc } from './start/arc';
import { catenary } from './start/catenary';
import { drawn } from './start/drawn';
import { fractal } from './start/fractal';
import { helix } from './start/helix';
import { line } from './start/line';
import { shared } from './start/shared';

// The list holds steps of many parameter types; whoever runs one has checked the parameters against its declaration.
const list = [
  ...[drawn, line, arc, helix, catenary, fractal, shared],
  ...[respace, smooth, noise, wave, bend, twist, transform, strands],
  grow,
  ...[tube, sweep],
  finish,
] as unknown as StepDeclaration[];

/** Every step there is, in the order of work. */
export const STEPS: readonly StepDeclaration[] = list;

const byKind = new Map(list.map((step) => [step.kind, step]));

/** The declaration of a kind, or undefined when there is no such step. */
export const stepOf = (kind: string): StepDeclaration | undefined => byKind.get(kind);
