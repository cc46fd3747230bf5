/** A format that forms are read from. */
export interface FormFormat {
  name: string;
  /** Endings of file names, in lower case. */
  endings: readonly string[];
  /** Media types, where the format has one. */
  types: readonly string[];
}

/** The formats that forms are read from; `readForm.ts` has a reader for each. */
export const FORM_FORMATS = {
  obj: { name: 'OBJ', endings: ['.obj'], types: ['model/obj'] },
  ply: { name: 'PLY', endings: ['.ply'], types: [] },
  stl: { name: 'STL', endings: ['.stl'], types: ['model/stl'] },
  gltf: { name: 'glTF (GLB)', endings: ['.gltf', '.glb'], types: ['model/gltf-binary'] },
} satisfies Record<string, FormFormat>;

export type FormFormatId = keyof typeof FORM_FORMATS;

const formats: readonly FormFormat[] = Object.values(FORM_FORMATS);

/** Their names, as a sentence lists them. */
export const FORM_NAMES = formats
  .map(({ name }) => name)
  .join(', ')
  .replace(/, ([^,]*)$/, ' or $1');

/** What a field for files accepts, as in HTML. */
export const FORM_ACCEPT = [
  ...formats.flatMap(({ endings }) => endings),
  ...formats.flatMap(({ types }) => types),
].join();
