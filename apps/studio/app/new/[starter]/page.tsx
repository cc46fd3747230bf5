import { NewLoader } from '@/ui/NewLoader';

export default async function NewFromStarterPage({ params }: { params: Promise<{ starter: string }> }) {
  return <NewLoader starter={(await params).starter} />;
}
