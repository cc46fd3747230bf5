import { TestEnvironment } from 'jest-environment-jsdom';

/** What every browser has and the page that tests stand in has not. */
const MISSING = { TextEncoder, TextDecoder, structuredClone };

/** A page for tests of components: laid out nowhere, drawn nowhere. */
export default class Dom extends TestEnvironment {
  async setup() {
    await super.setup();
    for (const [name, value] of Object.entries(MISSING)) this.global[name] ??= value;
    // What lays nothing out has no pointers to hold, and nothing to scroll to.
    Object.assign(this.global.Element.prototype, {
      setPointerCapture() {},
      releasePointerCapture() {},
      hasPointerCapture: () => false,
      scrollIntoView() {},
    });
    this.global.PointerEvent ??= class PointerEvent extends this.global.MouseEvent {
      constructor(type, more = {}) {
        super(type, more);
        this.pointerId = more.pointerId ?? 0;
        this.pointerType = more.pointerType ?? 'mouse';
      }
    };
    // Every browser has it, and by it libraries know that there are pointer events.
    this.global.onpointerdown ??= null;
    // React waits for what a test has done only where it is told that there is one.
    this.global.IS_REACT_ACT_ENVIRONMENT = true;
  }
}
