import fc from 'fast-check';
import { change, emptyHistory, type History, redo, seal, undo } from './history';

interface Doc {
  list: number[];
  name: string;
}

const start: Doc = { list: [1, 2, 3], name: 'reef' };

describe('history', () => {
  test('any number of changes is undone to the start and done again to the end', () => {
    const step = fc.oneof(
      fc.integer().map((n) => (doc: Doc) => void doc.list.push(n)),
      fc.nat(5).map((i) => (doc: Doc) => void doc.list.splice(i, 1)),
      fc.string().map((name) => (doc: Doc) => void (doc.name = name)),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        let state: { value: Doc; history: History } = { value: start, history: emptyHistory };
        for (const recipe of steps) state = change(state.value, state.history, 'step', recipe);
        const end = state.value;
        for (let back = undo(state.value, state.history); back; back = undo(state.value, state.history)) state = back;
        expect(state.value).toEqual(start);
        for (let on = redo(state.value, state.history); on; on = redo(state.value, state.history)) state = on;
        expect(state.value).toEqual(end);
      }),
    );
  });

  test('changes of one drag are one entry; after it is sealed the next one is another', () => {
    let state = { value: start, history: emptyHistory };
    for (let i = 0; i < 5; i++)
      state = change(state.value, state.history, 'drag', (doc) => void (doc.list[0] = i + 10), 'a');
    expect(state.history.past).toHaveLength(1);
    state = { ...state, history: seal(state.history, state.value) };
    state = change(state.value, state.history, 'drag', (doc) => void (doc.list[0] = 99), 'a');
    expect(state.history.past).toHaveLength(2);
    expect(undo(state.value, state.history)!.value.list[0]).toBe(14);
  });

  test('a change after undo drops what could have been done again, and joins no older drag', () => {
    let state = change(start, emptyHistory, 'drag', (doc) => void (doc.name = 'a'), 'k');
    state = change(state.value, state.history, 'other', (doc) => void (doc.name = 'b'));
    const back = undo(state.value, state.history)!;
    const next = change(back.value, back.history, 'drag', (doc) => void (doc.name = 'c'), 'k');
    expect(next.history.future).toHaveLength(0);
    expect(next.history.past).toHaveLength(2);
  });

  test('a drag that comes back to where it began leaves no entry, one that does not leaves one', () => {
    for (const [last, entries] of [
      [start.list[0], 0],
      [99, 1],
    ]) {
      let state = change(start, emptyHistory, 'drag', (doc) => void (doc.list[0] = 50), 'a');
      state = change(state.value, state.history, 'drag', (doc) => void (doc.list[0] = last), 'a');
      expect(seal(state.history, state.value).past).toHaveLength(entries);
    }
    const same = change(start, emptyHistory, 'same', (doc) => void (doc.list = [...start.list]));
    expect(same.history.past).toHaveLength(0);
  });

  test('a recipe that changes nothing leaves no entry', () => {
    expect(change(start, emptyHistory, 'none', (doc) => void (doc.name = 'reef')).history.past).toHaveLength(0);
  });
});
