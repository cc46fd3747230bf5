import { Missing } from '@/ui/Missing';

export default function NotFound() {
  return <Missing what="There is nothing at this address." />;
}
