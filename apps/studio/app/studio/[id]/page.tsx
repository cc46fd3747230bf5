import { StudioLoader } from '@/ui/StudioLoader';

export default async function StudioPage({ params }: { params: Promise<{ id: string }> }) {
  return <StudioLoader id={(await params).id} />;
}
