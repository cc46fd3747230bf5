import { Library } from '@/library/Library';

export default function LibraryPage() {
  return <Library />;
}
