'use client';

import { useShallow } from 'zustand/react/shallow';
import { type GrowthParam, READY_ITEMS, type Scene } from '@uvrex/core';
import { attributeLabel, attributeNames } from '@/state/document/attributeNames';
import { useDocument } from '@/state/document/document';
import { fitsParam, makesCircle } from '@/state/actions/items';
import { useSelectedBefore } from '@/state/actions/selectedBefore';
import { ChoiceField } from '@/ui/fields';
import { drawItems, useItemPictures } from './itemPictures';

/** Ids and names of some things of the scene: the same list again until one of them is another. */
const useNames = (of: (scene: Scene) => readonly { id: string; name: string }[]): readonly string[] =>
  useDocument(useShallow((state) => of(state.scene).flatMap(({ id, name }) => [id, name])));

/** The same in pairs. */
const named = (names: readonly string[]): { id: string; name: string }[] =>
  Array.from({ length: names.length / 2 }, (_, k) => ({ id: names[2 * k], name: names[2 * k + 1] }));

interface ReferenceProps {
  label: string;
  help: string;
  /** The growth whose step it is: nothing refers to itself. */
  own: string;
  value: string | null;
  onChange: (value: string | null) => void;
}

/** One of several things, or none. */
function ReferenceField({
  none,
  options,
  value,
  onChange,
  ...words
}: Omit<ReferenceProps, 'own'> & {
  none: string;
  options: readonly { value: string; label: string; picture?: string }[];
  onOpen?: () => void;
}) {
  return (
    <ChoiceField
      {...words}
      options={[{ value: '', label: none }, ...options]}
      value={value ?? ''}
      onChange={(next) => onChange(next || null)}
    />
  );
}

/** What stands before the id of something that is to be made. */
const MAKE = 'make:';

/** Another growth; where it is copied, something can be made to be. */
export function GrowthField({
  own,
  spec,
  make,
  onChange,
  ...rest
}: ReferenceProps & { spec: GrowthParam; make?: (item: string) => void }) {
  // What is chosen stays in the list, though it no longer fits.
  const growths = named(
    useNames((scene) => scene.growths.filter((growth) => growth.id === rest.value || fitsParam(spec, growth))),
  );
  const groups = named(
    useNames((scene) =>
      spec.item ? scene.groups.filter(({ id }) => id === rest.value || !makesCircle(scene, own, id)) : [],
    ),
  );
  const pictures = useItemPictures((state) => state.pictures);
  const before = useSelectedBefore((state) => state.id);
  const options = growths
    .filter(({ id }) => id !== own)
    // What was selected last stands first.
    .sort((a, b) => Number(b.id === before) - Number(a.id === before))
    .map(({ id, name }) => ({ value: id, label: name, picture: pictures.get(id)?.url ?? '' }));
  const whole = groups.map(({ id, name }) => ({ value: id, label: `${name} (group)` }));
  const ready = make ? READY_ITEMS.map(({ id, label }) => ({ value: `${MAKE}${id}`, label: `Make ${label}` })) : [];
  return (
    <ReferenceField
      {...rest}
      none="None"
      options={[...options, ...whole, ...ready]}
      onOpen={() => void drawItems().catch(() => undefined)}
      onChange={(next) => (next?.startsWith(MAKE) ? make!(next.slice(MAKE.length)) : onChange(next))}
    />
  );
}

/** A guide of the scene, or the tips of another growth. */
export function GuideField({ own, make, onChange, ...rest }: ReferenceProps & { make: () => void }) {
  const growths = named(useNames((scene) => scene.growths));
  const guides = named(useNames((scene) => scene.guides));
  const options = [
    ...guides.map(({ id, name }) => ({ value: `guide:${id}`, label: name })),
    ...growths.filter(({ id }) => id !== own).map(({ id, name }) => ({ value: `tip:${id}`, label: `Tips of ${name}` })),
    { value: MAKE, label: 'New guide here' },
  ];
  return (
    <ReferenceField
      {...rest}
      none={guides.length > 0 ? 'None' : 'No guides yet'}
      options={options}
      onChange={(next) => (next === MAKE ? make() : onChange(next))}
    />
  );
}

/** An attribute by its name. */
export function AttributeField({
  growth,
  step,
  none,
  value,
  onChange,
  ...words
}: {
  label: string;
  help: string;
  growth: string;
  step: string;
  /** Whether it may go by nothing. */
  none: boolean;
  value: string;
  onChange: (value: string) => void;
}) {
  const known = useDocument(useShallow((state) => attributeNames(state.scene.growths, growth, step)));
  const names = [...new Set([...known, ...(value ? [value] : [])])];
  return (
    <ChoiceField
      {...words}
      options={[
        ...(none ? [{ value: '', label: 'Nothing' }] : []),
        ...names.map((name) => ({ value: name, label: attributeLabel(name) })),
      ]}
      value={value}
      onChange={onChange}
    />
  );
}
