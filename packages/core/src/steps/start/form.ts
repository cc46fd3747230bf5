import { FORM_NAMES } from '../../forms/formFormats';
import { Problem } from '../../problem';
import { shippedOf } from '../../scene/shippedFiles';
import { defineStep } from '../declare';
import { metres } from '../../format';

/** Metres in each unit that files are made in. */
const UNITS: Record<string, number> = {
  metres: 1,
  centimetres: 0.01,
  millimetres: 0.001,
  inches: 0.0254,
  feet: 0.3048,
};

export const form = defineStep({
  kind: 'form',
  family: 'start',
  label: 'Form',
  use: 'Forms',
  icon: 'M10 2.5C14 5 16 8 15 12 14 15 12 17 10 17.5 8 17 6 15 5 12 4 8 6 5 10 2.5ZM5 12C8 13 12 13 15 12M10 2.5C8.5 8 8.5 13 10 17.5',
  help: `A form from a file: ${FORM_NAMES}; or one of those that come with Uvrex. To grow over, scatter on, reveal or copy.`,
  takes: [],
  gives: ['mesh'],
  params: {
    file: {
      type: 'file',
      kind: 'form',
      label: 'File',
      help: 'The form. Drop a file into the view, or load one here.',
      shipped: shippedOf('form'),
      default: 'shipped:reef-rock',
    },
    by: {
      type: 'choice',
      label: 'Scaled by',
      help: 'Its longest side in metres, or the unit that the file was made in.',
      options: [
        { value: 'size', label: 'Its longest side' },
        ...Object.keys(UNITS).map((value) => ({ value, label: `${value[0].toUpperCase()}${value.slice(1)}` })),
      ],
      default: 'size',
    },
    size: {
      type: 'number',
      unit: 'm',
      label: 'Size',
      help: 'Length of the longest side.',
      default: 1.5,
      min: 0.0001,
      max: 1000,
      slider: [0.1, 5],
      shown: (p) => p.by === 'size',
    },
    up: {
      type: 'choice',
      label: 'Up axis',
      help: 'Which axis of the file is up: as files of its kind mostly have it, Y in OBJ and glTF, Z in PLY and STL; or another.',
      options: [
        { value: 'file', label: 'As usual' },
        { value: 'y', label: 'Y' },
        { value: 'z', label: 'Z' },
        { value: 'x', label: 'X' },
      ],
      default: 'file',
    },
    ground: {
      type: 'toggle',
      label: 'On the ground',
      help: 'Puts its middle over the origin, its foot on the ground; else it stands where the file has it.',
      default: true,
    },
    soft: {
      type: 'number',
      unit: 'deg',
      label: 'Smoothing angle',
      help: 'Where the file has no normals: edges at which faces turn by less look round.',
      default: 50,
      min: 0,
      max: 180,
    },
    reduce: {
      type: 'number',
      unit: 'm',
      label: 'Tolerance',
      help: 'Leaves faces out as long as the form lies nowhere further than this from the whole one; 0 keeps all.',
      default: 0,
      min: 0,
      max: 100,
      slider: [0, 0.02],
    },
  },
  summary: (p) => (p.file === null ? 'no file chosen' : p.by === 'size' ? `${metres(p.size)} long` : `in ${p.by}`),
  async run(form, p, context) {
    if (p.file === null) throw new Problem('No file is chosen.', `Load a file: ${FORM_NAMES}.`);
    const [{ formOfFile }, { extentOf, taken }, { startWithMesh }] = await Promise.all([
      import('../../forms/formCache'),
      import('../../forms/repairForm'),
      import('./startWithMesh'),
    ]);
    const yieldNow = (): Promise<void> => context.yieldNow();
    const raw = await formOfFile(p.file, () => context.file(p.file!), yieldNow);
    const faces = raw.indices.length / 3;
    context.claim('faces', faces, 'the number of faces where it was made');
    const unit = p.by === 'size' ? p.size / Math.max(1e-9, extentOf(raw)) : UNITS[p.by];
    const up = p.up === 'file' ? raw.up : p.up;
    let mesh = await taken(raw, { up, unit, soft: (p.soft * Math.PI) / 180, ground: p.ground }, yieldNow);
    if (raw.leftOut)
      context.tell(
        `${raw.leftOut} are not taken over.`,
        'Colours of its materials and vertices are: give it others with Finish.',
      );
    if (p.reduce > 0) {
      const { reduceMesh } = await import('../../forms/reduce');
      mesh = await reduceMesh(mesh, p.reduce, yieldNow);
    }
    const { opennessOf } = await import('../../surfaces/edit/openness');
    const told = opennessOf(mesh);
    if (told)
      context.tell(
        told,
        'It grows, cuts and scatters all the same; thickness and insides are sure on closed forms only.',
      );
    return startWithMesh(form, mesh);
  },
});
