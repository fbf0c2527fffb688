import type { PhoneCode } from '@velvet-reed/contract';
import { useState } from 'react';
import { answerPhone, closeCode, newCode, useDoorBell } from '../../../data/door';
import { useNow } from '../../../data/now';
import { showTrouble } from '../../../data/station';
import { Announced } from '../../../ui/announced';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';

/** Shows a code for one phone, and asks for the yes when that phone knocks. */
export function LetIn({
  network,
  onLetIn,
}: {
  readonly network: { readonly addresses: readonly string[]; readonly fingerprint: string };
  readonly onLetIn: () => void;
}) {
  const nowMs = useNow(1000);
  const [code, setCode] = useState<PhoneCode>();
  const [told, setTold] = useState('');
  const { data: bell } = useDoorBell(code !== undefined);
  const left = code ? Math.max(0, Math.round((code.untilMs - nowMs) / 1000)) : 0;
  const run = async (work: () => Promise<string>): Promise<void> => {
    try {
      setTold(await work());
    } catch (fault) {
      showTrouble(fault);
    }
  };
  const answer = (check: string, letIn: boolean): Promise<void> =>
    run(async () => {
      await answerPhone(check, letIn);
      setCode(undefined);
      // the phone takes its token within a second or two
      setTimeout(onLetIn, 2500);
      return letIn ? 'It is let in.' : 'It was turned away.';
    });
  const asking = bell?.asking;
  const spent = code !== undefined && !asking && (left === 0 || bell?.open === null);
  return (
    <Section title="Let a phone in" hint={network.addresses.join(', ')}>
      {asking ? (
        <Announced>
          <p>
            <b className="font-semibold">{asking.name}</b> at {asking.from} asks to be let in. It must show these four
            digits:
          </p>
          <p className="my-1 font-mono text-4xl tracking-widest">{asking.check}</p>
          <p className="flex flex-wrap gap-3">
            <Button look="main" onClick={() => void answer(asking.check, true)}>
              Same digits: let it in
            </Button>
            <Button onClick={() => void answer(asking.check, false)}>Turn it away</Button>
          </p>
        </Announced>
      ) : code && !spent ? (
        <div className="flex flex-wrap gap-6">
          {code.pictures.map(({ address, svg }) => (
            <img
              key={address}
              alt={`Picture for the phone's camera, leads to ${address}`}
              width={200}
              height={200}
              src={`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`}
            />
          ))}
          <div className="max-w-sm">
            <p>Point the phone&apos;s camera at the picture; or open {code.pictures[0]?.address} on it and type</p>
            <p className="my-1 font-mono text-4xl tracking-widest" data-code>
              {code.code}
            </p>
            <p>
              Good for one phone and {left} s more
              {bell?.open && bell.open.triesLeft < 5 ? `; ${bell.open.triesLeft} tries left` : ''}.{' '}
              <Button
                look="quiet"
                onClick={() =>
                  void run(async () => {
                    await closeCode();
                    setCode(undefined);
                    return '';
                  })
                }
              >
                Close it
              </Button>
            </p>
          </div>
        </div>
      ) : (
        <p className="flex flex-wrap items-center gap-4">
          <Button
            look="main"
            onClick={() =>
              void run(async () => {
                setCode(await newCode());
                return '';
              })
            }
          >
            Let a phone in
          </Button>
          <span role="status">{spent ? 'The code is void now. Make a new one.' : told}</span>
        </p>
      )}
      <p className="mt-2 text-sm text-dim">
        Fingerprint of this computer&apos;s authority (SHA-256), the same on the phone:{' '}
        <span className="font-mono break-all">{network.fingerprint}</span>
      </p>
    </Section>
  );
}
