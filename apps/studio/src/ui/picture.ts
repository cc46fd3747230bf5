import { useEffect, useState } from 'react';

/** An address for a stored picture, for as long as it is shown. */
export function usePicture(picture: Blob | null): string | null {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    if (!picture) return;
    const made = URL.createObjectURL(picture);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [picture]);
  return url;
}
