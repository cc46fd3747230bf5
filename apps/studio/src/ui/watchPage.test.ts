/** @jest-environment ./scripts/dom.mjs */
import { Problem } from '@uvrex/core';
import { sayProblem } from '@/state/toasts';
import { watchPage } from './watchPage';

jest.mock('@/state/toasts', () => ({ sayProblem: jest.fn() }));
const said = jest.mocked(sayProblem);

const refuse = (blockedURI: string): boolean =>
  document.dispatchEvent(
    Object.assign(new Event('securitypolicyviolation'), { effectiveDirective: 'worker-src', blockedURI }),
  );
const fail = (reason: unknown): boolean =>
  window.dispatchEvent(Object.assign(new Event('unhandledrejection'), { reason }));

beforeEach(() => said.mockClear());

test('what the policy refuses is shown, with what it was and what to do', () => {
  const stop = watchPage();
  refuse(`blob:${'x'.repeat(200)}`);
  const [[problem]] = said.mock.calls as [[Problem]];
  expect(problem).toBeInstanceOf(Problem);
  expect(problem.message).toMatch(/worker-src: blob:x+\)/);
  expect(problem.message.length).toBeLessThan(200);
  expect(problem.advice).toMatch(/^Reload/);
  stop();
});

test('a promise whose failure nobody handles is shown', () => {
  const stop = watchPage();
  const reason = new Error('nobody looked');
  fail(reason);
  expect(said.mock.calls).toEqual([[reason]]);
  stop();
});

test('not any more when it has been stopped', () => {
  watchPage()();
  refuse('blob:');
  fail(new Error('later'));
  expect(said).not.toHaveBeenCalled();
});
