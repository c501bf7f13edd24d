import { useNavigate, useSearchParams } from 'react-router';
import { Page } from '../ui/page';
import { ExchangePreview } from './exchange-preview';
import { PutZip } from './put-zip';

/** What a Wombat without a school shows: how the first one comes in. */
export function FirstStart() {
  const [search, setSearch] = useSearchParams();
  const zip = Number(search.get('zip')) || null;
  const navigate = useNavigate();
  return (
    <main className="flex h-dvh flex-col">
      {zip === null ? (
        <Page
          headline={<>This Wombat is empty. Schools, periods, people and courses come in as one OneRoster zip.</>}
          below="Afterwards set up scales and report items."
        >
          <PutZip onRead={(id) => setSearch({ zip: String(id) })} />
        </Page>
      ) : (
        <ExchangePreview id={zip} onClose={() => setSearch({})} onTaken={() => void navigate('/')} />
      )}
    </main>
  );
}
