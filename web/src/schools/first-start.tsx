import { useNavigate, useSearchParams } from 'react-router';
import { ExchangePreview } from '../exchange/exchange-preview';
import { PutZip } from '../exchange/put-zip';
import { searchWith } from '../ui/address/search-with';
import { Button } from '../ui/button';
import { Page } from '../ui/page';
import { Panel } from '../ui/panel';
import { OpenSchoolForm } from './open-school-form';

/** What a Wombat without a school shows: the ways in which the first one comes in. */
export function FirstStart() {
  const [search, setSearch] = useSearchParams();
  const zip = Number(search.get('zip')) || null;
  const way = search.get('way');
  const navigate = useNavigate();
  const go = (to: string) => setSearch((before) => searchWith(before, { way: to }));
  return (
    <main className={`flex flex-col ${zip === null ? 'min-h-dvh' : 'h-dvh'}`}>
      {zip !== null ? (
        <ExchangePreview id={zip} onClose={() => setSearch({})} onTaken={() => void navigate('/')} />
      ) : way === 'hand' ? (
        <Page
          headline="The first school begins with its district, its name and its first year."
          actions={<Button onClick={() => setSearch({})}>Back</Button>}
        >
          <OpenSchoolForm isFirst />
        </Page>
      ) : (
        <Page
          headline="This Wombat is empty. A first school comes in as a OneRoster zip, or is made by hand."
          below="Afterwards set up scales and report items."
        >
          <PutZip onRead={(id) => setSearch({ zip: String(id) })} />
          <div className="grid gap-3.5 min-[900px]:grid-cols-2">
            <Panel label="By hand" className="space-y-2 px-4 py-3">
              <h2 className="font-bold">Make it by hand</h2>
              <p className="text-[13px] text-quiet">
                District and school, a first year whose periods are proposed, then people and courses, typed or pasted
                from a spreadsheet. No other system is needed.
              </p>
              <Button look="main" onClick={() => go('hand')}>
                Make the first school
              </Button>
            </Panel>
            <Panel label="Look around first" className="space-y-2 px-4 py-3">
              <h2 className="font-bold">Look around first</h2>
              <p className="text-[13px] text-quiet">
                A made-up district with three schools runs beside this one, in a data folder of its own, and leaves this
                Wombat as it is:
              </p>
              <p className="figures text-[13px]">PORT=4601 WOMBAT_DATA=./look-around npm run demo</p>
            </Panel>
          </div>
        </Page>
      )}
    </main>
  );
}
