import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Page } from '../ui/page';
import { ExchangePreview } from './exchange-preview';
import { PutZip } from './put-zip';

/** What a Wombat without a school shows: how the first one comes in. */
export function FirstStart() {
  const [zip, setZip] = useState<number | null>(null);
  const navigate = useNavigate();
  return (
    <main className="flex h-dvh flex-col">
      {zip === null ? (
        <Page
          headline={<>This Wombat is empty. Schools, periods, people and courses come in as one OneRoster zip.</>}
          below="Afterwards set up scales and report items."
        >
          <PutZip onRead={setZip} />
        </Page>
      ) : (
        <ExchangePreview id={zip} onClose={() => setZip(null)} onTaken={() => void navigate('/')} />
      )}
    </main>
  );
}
