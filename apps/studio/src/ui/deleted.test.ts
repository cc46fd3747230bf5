import { announceDeleted, restoreDeleted, useDeleted } from './deleted';
import { say, sayProblem } from '@/state/toasts';

jest.mock('@/state/toasts', () => ({ say: jest.fn(), sayProblem: jest.fn() }));

beforeEach(() => useDeleted.setState({ list: [] }));

test('of several deletions in a row each has its own way back, the last first', async () => {
  const back: string[] = [];
  for (const name of ['Kelp', 'Chain', 'Shell'])
    await announceDeleted(
      name,
      Promise.resolve(async () => void back.push(name)),
    );
  expect(useDeleted.getState().list.map(({ name }) => name)).toEqual(['Shell', 'Chain', 'Kelp']);
  await restoreDeleted(useDeleted.getState().list[2]);
  expect(back).toEqual(['Kelp']);
  expect(useDeleted.getState().list.map(({ name }) => name)).toEqual(['Shell', 'Chain']);
  jest.mocked(say).mock.calls.at(-1)![0].action!.run();
  await new Promise((done) => setTimeout(done));
  expect(back).toEqual(['Kelp', 'Shell']);
});

test('what could not be brought back stays in the list; what was not deleted is not in it', async () => {
  await announceDeleted(
    'Kelp',
    Promise.resolve(() => Promise.reject(new Error('full'))),
  );
  await expect(restoreDeleted(useDeleted.getState().list[0])).rejects.toThrow('full');
  expect(useDeleted.getState().list).toHaveLength(1);
  await announceDeleted('Chain', Promise.reject(new Error('locked')));
  expect(useDeleted.getState().list).toHaveLength(1);
  expect(sayProblem).toHaveBeenCalled();
});
