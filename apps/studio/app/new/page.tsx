import { NewLoader } from '@/ui/NewLoader';

export default function NewPage() {
  return <NewLoader starter={null} />;
}
