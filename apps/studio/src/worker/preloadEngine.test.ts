import { endEarly, startEarly, takeWorker } from './preloadEngine';

class FakeWorker {
  static all: FakeWorker[] = [];
  fail: () => void = () => {};
  ended = false;
  constructor() {
    FakeWorker.all.push(this);
  }
  addEventListener(_: string, listener: () => void): void {
    this.fail = listener;
  }
  terminate(): void {
    this.ended = true;
  }
}

beforeEach(() => {
  endEarly();
  FakeWorker.all = [];
  global.Worker = FakeWorker as never;
  global.URL = class extends URL {
    constructor(path: string) {
      super(path, 'http://localhost/');
    }
  } as never;
});

test('one worker is started, once, and given to who comes first', () => {
  startEarly();
  startEarly();
  expect(FakeWorker.all).toHaveLength(1);
  expect(takeWorker()).toBe(FakeWorker.all[0]);
  expect(takeWorker()).toBe(FakeWorker.all[1]);
});

test('one that cannot start is given to nobody', () => {
  startEarly();
  FakeWorker.all[0].fail();
  expect(takeWorker()).toBe(FakeWorker.all[1]);
});

test('one that has been taken is not ended with the page that started it', () => {
  startEarly();
  const taken = takeWorker() as never as FakeWorker;
  endEarly();
  expect(taken.ended).toBe(false);
  startEarly();
  endEarly();
  expect(FakeWorker.all[1].ended).toBe(true);
});
