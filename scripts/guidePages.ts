import { type Family, figure, type ParamSpec, shownFactor, type StepDeclaration, STEPS, type Unit } from '@uvrex/core';

const FAMILIES: readonly { of: Family; title: string; about: string }[] = [
  { of: 'start', title: 'Starts', about: 'What a growth begins with: paths, a form, or points.' },
  { of: 'shape', title: 'Shape', about: 'Steps that change where things are.' },
  { of: 'grow', title: 'Grow', about: 'Steps that make paths come and go over time.' },
  { of: 'skin', title: 'Skin', about: 'Steps that give paths a surface, and surfaces a front that runs over them.' },
  { of: 'finish', title: 'Finish', about: 'Colour, glow and roughness.' },
  { of: 'place', title: 'Place', about: 'Steps that set copies of another growth along, on and in it, and time them.' },
];

const SIGNS: Partial<Record<Unit, string>> = { m: ' m', deg: '°', share: ' %', s: ' s' };

/** A field's default, as the studio shows it. */
function usual(spec: ParamSpec): string {
  switch (spec.type) {
    case 'number':
      return `${figure(spec.default * shownFactor(spec.unit), 3)}${SIGNS[spec.unit] ?? ''}`;
    case 'choice':
      return spec.options.find(({ value }) => value === spec.default)?.label ?? '';
    case 'toggle':
      return spec.default ? 'on' : 'off';
    default:
      return '';
  }
}

const cell = (text: string): string => text.replaceAll('|', '\\|').replaceAll('\n', ' ');

const list = (kinds: readonly string[], word: string): string =>
  kinds.length < 2 ? (kinds[0] ?? '') : `${kinds.slice(0, -1).join(', ')} ${word} ${kinds.at(-1)}`;

/** What a step needs and makes, in a sentence. */
function passes({ takes, takesOne = [], gives }: StepDeclaration): string {
  const needs = [
    ...(takes.length > 0 ? [list(takes, 'and')] : []),
    ...(takesOne.length > 0 ? [list(takesOne, 'or')] : []),
  ];
  const made = gives.length > 0 ? ` Makes ${list(gives, 'and')}.` : '';
  return needs.length > 0 ? `Needs ${needs.join(' and ')}.${made}` : made.trim();
}

/** The name of a step's small picture. */
export const pictureOf = ({ family, kind }: StepDeclaration): string =>
  `${family === 'start' ? 'start' : 'step'}-${kind}.webp`;

function section(step: StepDeclaration, pictured: boolean): string {
  const fields = Object.values(step.params).map(
    (spec) => `| ${cell(spec.label)} | ${cell(usual(spec))} | ${cell(spec.help)} |`,
  );
  return [
    `## ${step.label}`,
    step.help,
    passes(step),
    pictured
      ? `<img src="../../examples/small/${pictureOf(step)}" width="864" alt="${step.label}, from the first moment to the last">`
      : '',
    fields.length > 0 ? ['| Field | At first | |', '| --- | --- | --- |', ...fields].join('\n') : '',
  ]
    .filter(Boolean)
    .join('\n\n');
}

/**
 * The guide to all steps, written from their declarations.
 * @param pictured whether there is a small picture of that name
 * @returns texts by the names of their files
 */
export function guidePages(pictured: (name: string) => boolean): Map<string, string> {
  const pages = new Map<string, string>();
  const index = [
    '# Guide to the steps',
    'Written by `npm run guide` from what the steps say of themselves. Pictures run from the first moment on the left to the last.',
  ];
  for (const { of, title, about } of FAMILIES) {
    const steps = STEPS.filter(({ family }) => family === of).sort((a, b) => a.label.localeCompare(b.label, 'en'));
    const name = `${title.toLowerCase()}.md`;
    const sections = steps.map((step) => section(step, pictured(pictureOf(step))));
    pages.set(name, `# ${title}\n\n${about}\n\n${sections.join('\n\n')}\n`);
    index.push(`## [${title}](${name})`, about, steps.map((step) => `- ${step.label}: ${step.help}`).join('\n'));
  }
  pages.set('README.md', `${index.join('\n\n')}\n`);
  return pages;
}
