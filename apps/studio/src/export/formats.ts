import { GEOMETRY_FORMATS } from '@uvrex/formats';
import { PICTURE_FORMATS } from './pictures';

/** The scene itself, as the library reads it. */
const SCENE_FORMAT = {
  id: 'json',
  takes: 'scene',
  label: 'Scene file',
  help: 'To keep, or open elsewhere',
} as const;

/** All that a scene can be delivered as: pictures, geometry, itself. */
export const FORMATS = [...PICTURE_FORMATS, ...GEOMETRY_FORMATS, SCENE_FORMAT] as const;

export type Format = (typeof FORMATS)[number]['id'];

export const formatOf = (id: Format): (typeof FORMATS)[number] => FORMATS.find((format) => format.id === id)!;
