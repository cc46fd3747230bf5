import { Traces } from './traces';

const outcome = (key: string) => ({ key, kinds: [], shows: [], notes: [] });
const asks = (world: Record<string, string>) => (question: string) => world[question];
const reads = (world: Record<string, string>) =>
  Object.entries(world).map(([question, answer]) => ({ question, answer }));

test('a result is found only where every answer is the same, and what was not read does not count', async () => {
  const traces = new Traces();
  traces.put('begin', reads({ frame: '1', seed: '7' }), outcome('a'));
  traces.put('begin', reads({ frame: '2', guide: 'low', seed: '7' }), outcome('b'));
  expect(await traces.find('begin', asks({ frame: '1', seed: '7', guide: 'anything' }))).toEqual(outcome('a'));
  expect(await traces.find('begin', asks({ frame: '2', seed: '7', guide: 'low' }))).toEqual(outcome('b'));
  for (const world of [{ frame: '1', seed: '8' }, { frame: '3', seed: '7' }, { frame: '2', seed: '7' }, {}])
    expect(await traces.find('begin', asks(world as never))).toBeUndefined();
  expect(await traces.find('other', asks({ frame: '1', seed: '7' }))).toBeUndefined();
});

test('questions are asked in the order of the run, and no further than the first that differs', async () => {
  const traces = new Traces();
  traces.put('begin', reads({ a: '1', b: '2', c: '3' }), outcome('x'));
  const asked: string[] = [];
  await traces.find('begin', (question) => {
    asked.push(question);
    return Promise.resolve(question === 'a' ? '1' : 'else');
  });
  expect(asked).toEqual(['a', 'b']);
});

test('a run that reads nothing hangs on its beginning alone; one that asks otherwise takes its place', async () => {
  const traces = new Traces();
  traces.put('still', [], outcome('s'));
  expect(await traces.find('still', asks({}))).toEqual(outcome('s'));
  traces.put('still', reads({ a: '1' }), outcome('t'));
  expect(await traces.find('still', asks({ a: '1' }))).toEqual(outcome('t'));
  expect(await traces.find('still', asks({ a: '2' }))).toBeUndefined();
});

test('old beginnings go, those in use stay', async () => {
  const traces = new Traces();
  for (let i = 0; i < 200_000; i++) {
    traces.put(`${i}`, [], outcome(`${i}`));
    if (i % 10_000 === 0) expect(await traces.find('0', asks({}))).toEqual(outcome('0'));
  }
  expect(await traces.find('1', asks({}))).toBeUndefined();
});
