/** The nonce under which this page may add styles: its policy refuses those without. */
export const styleNonce = (): string | undefined => document.querySelector<HTMLElement>('[nonce]')?.nonce;
