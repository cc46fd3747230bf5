import type { Entry, Section } from './Picker';

/**
 * What is left of sections by what is typed. What is called just so comes first, then what begins so, what is called so among
 * other words, what is only told of so; what cannot be picked comes last of its section.
 */
export function foundIn(sections: readonly Section[], query: string): Section[] {
  const typed = query.toLowerCase().trim();
  const words = typed.split(/[\s-]+/).filter(Boolean);
  const text = ({ label, help = '', words: more = '' }: Entry): string => `${label} ${help} ${more}`.toLowerCase();
  const rankOf = (entry: Entry): number => (entry.off === undefined ? 0 : 10) + likeness(entry.label.toLowerCase());
  const likeness = (label: string): number => {
    if (label === typed) return 0;
    if (label.startsWith(typed)) return 1;
    return words.every((word) => label.includes(word)) ? 2 : 3;
  };
  const found = sections.flatMap((section) => {
    const entries = section.entries
      .filter((entry) => words.every((word) => text(entry).includes(word)))
      .map((entry) => ({ entry, rank: rankOf(entry) }))
      .sort((a, b) => a.rank - b.rank);
    return entries.length > 0
      ? [{ section: { ...section, entries: entries.map(({ entry }) => entry) }, rank: entries[0].rank }]
      : [];
  });
  // Where nothing is typed everything stays in its place.
  if (typed !== '') found.sort((a, b) => a.rank - b.rank);
  return found.map(({ section }) => section);
}
