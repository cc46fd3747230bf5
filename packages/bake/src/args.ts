import { parseArgs } from 'node:util';
import { LIMITS, Problem } from '@uvrex/core';
import { GEOMETRY_FORMATS, type GeometryFormatId } from '@uvrex/formats';

export interface BakeOptions {
  scene: string;
  frames: [number, number];
  out: string;
  format: GeometryFormatId;
  /** Name of the one growth to bake; all visible ones when left out. */
  growth: string | undefined;
  /** Frames that an earlier bake of the same has finished stay as they are. */
  resume: boolean;
  /** Workers; as many as cores when left out. */
  cores: number | undefined;
}

const IDS = GEOMETRY_FORMATS.map(({ id }) => id);

const OPTIONS = ['frames', 'out', 'format', 'growth', 'resume', 'cores', 'help'];

/** Frames that a scene can have. */
const MOST_FRAME = LIMITS.frame;

export const USAGE = `npm run bake -- SCENE.json --frames 1-144 --out DIR --format ${IDS.join('|')} [--growth NAME] [--resume] [--cores N]`;

export const HELP = `Bakes frames of a scene to files, on all cores.

  ${USAGE}

  --frames   first and last frame, or one
  --out      folder to write into; it is made where it is not there
  --format   ${IDS.join(', ')}
  --growth   name of the one growth to bake; all that are shown where it is left out
  --resume   goes on where a bake of the same was broken off
  --cores    workers; as many as cores where it is left out`;

/**
 * Reads the command line.
 * @throws Problem with what is wrong and how the command is written
 */
export function readArgs(argv: readonly string[]): BakeOptions {
  const wrong = (what: string): never => {
    throw new Problem(what, `Use: ${USAGE}`);
  };
  let parsed;
  try {
    parsed = parseArgs({
      args: [...argv],
      allowPositionals: true,
      options: {
        frames: { type: 'string' },
        out: { type: 'string' },
        format: { type: 'string' },
        growth: { type: 'string' },
        resume: { type: 'boolean' },
        cores: { type: 'string' },
      },
    });
  } catch {
    const [unknown] = argv.filter((arg) => arg.startsWith('-') && !OPTIONS.includes(arg.replace(/^-+|=.*$/g, '')));
    return wrong(unknown ? `There is no option ${unknown}.` : 'An option lacks its value.');
  }
  const { values, positionals } = parsed;
  if (positionals.length !== 1)
    return wrong(positionals.length === 0 ? 'No scene file is named.' : 'More than one scene file is named.');
  const frames = /^(-?\d+)(?:-(-?\d+))?$/.exec(values.frames ?? '');
  if (!frames) return wrong('--frames must be a range like 1-144, or one frame.');
  const range: [number, number] = [Number(frames[1]), Number(frames[2] ?? frames[1])];
  if (!range.every((frame) => Math.abs(frame) <= MOST_FRAME))
    return wrong(`--frames must lie between -${MOST_FRAME} and ${MOST_FRAME}.`);
  if (range[1] < range[0]) return wrong(`--frames ${values.frames} runs backwards.`);
  if (!values.out) return wrong('--out must name the folder to write into.');
  const format = IDS.find((id) => id === values.format);
  if (!format) return wrong(`--format must be ${IDS.slice(0, -1).join(', ')} or ${IDS.at(-1)}.`);
  const cores = values.cores === undefined ? undefined : Number(values.cores);
  if (cores !== undefined && !(Number.isInteger(cores) && cores >= 1 && cores <= 256))
    return wrong('--cores must be a whole number from 1 to 256.');
  const { out, growth, resume = false } = values;
  return { scene: positionals[0], frames: range, out, format, growth, resume, cores };
}
