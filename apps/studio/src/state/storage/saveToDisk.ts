/** A file ready to be saved. */
export interface Delivery {
  name: string;
  blob: Blob;
}

/** Hands a file to the browser to be saved. */
export function save({ name, blob }: Delivery): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
