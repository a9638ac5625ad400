import { Suspense } from 'react';
import { OpenCard } from '@/ui/studio/OpenCard';

export default function Page() {
  return (
    <Suspense>
      <OpenCard />
    </Suspense>
  );
}
