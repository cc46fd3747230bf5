import { Made, Receiver, Sender } from './columns';

interface Skin {
  mesh: { positions: Float32Array; indices: Uint32Array; glow: Float32Array | null };
  copies: { item: string; matrices: Float32Array }[];
  share: number;
}

const faces = Uint32Array.of(0, 1, 2);
const skin = (height: number, indices = faces): Skin => ({
  mesh: { positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, height, 0), indices, glow: null },
  copies: [],
  share: 0.5,
});

/** An engine and its page: what is sent goes through a message, as it does there. */
function pair() {
  const sender = new Sender();
  const receiver = new Receiver();
  const sent: number[] = [];
  return {
    sender,
    receiver,
    /** Bytes that crossed, message by message. */
    sent,
    show(key: string, form: Parameters<typeof sender.send<Skin>>[2], place = 'kelp'): Skin {
      const buffers: ArrayBuffer[] = [];
      const crossing = sender.send<Skin>(key, place, form, buffers);
      sent.push(buffers.reduce((sum, { byteLength }) => sum + byteLength, 0));
      return receiver.take<Skin>(key, structuredClone(crossing, { transfer: buffers }));
    },
    forget(key: string): void {
      sender.forget(key);
      receiver.forget(key);
    },
  };
}

test('what arrives is what was sent, and the engine keeps its own', () => {
  const { show } = pair();
  const form = skin(1);
  expect(show('a', form)).toEqual(skin(1));
  expect(form.mesh.positions).toHaveLength(9);
  expect(form.mesh.indices).toHaveLength(3);
});

test('an array that frames have in common crosses once, and is one array on the page', () => {
  const { show, sent } = pair();
  const first = show('a', skin(1));
  const second = show('b', skin(2));
  expect(sent).toEqual([48, 36]);
  expect(second.mesh.indices).toBe(first.mesh.indices);
  expect(second).toEqual(skin(2));
});

test('what was made anew with the same numbers is the same, in its place alone', () => {
  const { show, sent } = pair();
  show('a', skin(1));
  show('b', skin(1, Uint32Array.of(0, 1, 2)));
  show('c', skin(1, Uint32Array.of(0, 2, 1)));
  expect(sent).toEqual([48, 0, 12]);
  show('d', skin(3, Uint32Array.of(0, 1, 2)), 'weed');
  expect(sent[3]).toBe(48);
});

test('numbers of another kind or length are not the same', () => {
  const sender = new Sender();
  const last = sender.settled('place', Float32Array.of(1, 2));
  const settled = [Uint32Array.of(1, 2), Float32Array.of(1, 2, 3), Float32Array.of(1), Float32Array.of(1, 3)].map(
    (array) => [sender.settled('other', last), sender.settled('other', array) === array],
  );
  expect(settled.map(([, own]) => own)).toEqual([true, true, true, true]);
});

test('what no form holds any more crosses anew, what one still holds does not', () => {
  const { show, forget, sent } = pair();
  show('a', skin(1));
  const kept = show('b', skin(2));
  forget('a');
  expect(show('a', skin(3)).mesh.indices).toBe(kept.mesh.indices);
  forget('a');
  forget('b');
  expect(show('c', skin(4))).toEqual(skin(4));
  expect(sent).toEqual([48, 36, 36, 48]);
});

test('what has yet to be made is made only where it has to cross', () => {
  const { show, forget } = pair();
  const [of, make] = [{}, jest.fn(() => Float32Array.of(1, 2, 3, 4))];
  const form = (height: number) => ({ ...skin(height), copies: [{ item: 'bud', matrices: new Made(of, make) }] });
  expect(show('a', form(1)).copies).toEqual([{ item: 'bud', matrices: Float32Array.of(1, 2, 3, 4) }]);
  expect(show('b', form(2)).copies[0].matrices).toEqual(Float32Array.of(1, 2, 3, 4));
  expect(make).toHaveBeenCalledTimes(1);
  forget('a');
  forget('b');
  show('c', form(3));
  expect(make).toHaveBeenCalledTimes(2);
});

test('a form holds an array twice, and lets go of it once', () => {
  const { show, forget, sent } = pair();
  const both = Float32Array.of(0, 0, 1);
  const form = { ...skin(1), mesh: { positions: both, indices: faces, glow: both } };
  const first = show('a', form);
  expect(first.mesh.glow).toBe(first.mesh.positions);
  show('b', form);
  forget('a');
  show('c', form);
  expect(sent).toEqual([24, 0, 0]);
});

test('what the page does not hold is told, and not left out', () => {
  const { sender, receiver } = pair();
  sender.send<Skin>('a', 'kelp', skin(1), []);
  const crossing = sender.send<Skin>('b', 'kelp', skin(2), []);
  expect(() => receiver.take<Skin>('b', crossing)).toThrow('/mesh/indices');
});
