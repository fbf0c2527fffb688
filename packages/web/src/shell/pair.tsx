import { useEffect, useState } from 'react';
import { isAway } from '../data/api';
import { askIn, claimIn, useMe } from '../data/door';
import { Button } from '../ui/button';

/** The secret that a camera read stands behind "#": it is not sent to a server, and is taken out of the address at once. */
const secretOfAddress = (): string | undefined => {
  const secret = location.hash.slice(1);
  if (secret === '') return undefined;
  history.replaceState(null, '', location.pathname);
  return secret;
};
const readSecret = secretOfAddress();

/** How often the computer is asked whether it said yes, ms. */
const ASK_MS = 1000;

/** Where a phone comes in: the code from the computer's screen, then the yes at the computer. */
export default function PairPage() {
  const { data: me } = useMe();
  const [name, setName] = useState('Phone');
  const [code, setCode] = useState('');
  const [fault, setFault] = useState('');
  const [asked, setAsked] = useState<{ readonly ticket: string; readonly check: string }>();
  useEffect(() => {
    if (!asked) return;
    const timer = setInterval(() => {
      claimIn(asked.ticket).then(
        (inside) => {
          if (inside) location.assign('/');
        },
        (error: unknown) => {
          if (isAway(error)) return;
          setFault(error instanceof Error ? error.message : 'The computer said no.');
          setAsked(undefined);
        },
      );
    }, ASK_MS);
    return () => clearInterval(timer);
  }, [asked]);
  const ask = async (): Promise<void> => {
    setFault('');
    try {
      setAsked(
        await askIn(
          readSecret === undefined || code !== '' ? { code: code.replace(/\s/g, '') } : { secret: readSecret },
          name,
        ),
      );
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'That did not work. Try again.');
    }
  };
  return (
    <main className="mx-auto max-w-md px-4 py-8">
      <h1 className="font-serif text-3xl text-plum">Velvet Reed</h1>
      {me?.place === 'desk' ? (
        <p className="my-4">
          This page is at the computer itself; nothing is to be let in. <a href="/">To the stations</a>
        </p>
      ) : asked ? (
        <div role="status">
          <p className="mt-4 text-lg">The computer shows these four digits too; say yes there:</p>
          <p className="my-2 font-mono text-5xl tracking-widest">{asked.check}</p>
        </div>
      ) : (
        <form
          className="mt-4 flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            void ask();
          }}
        >
          <p>
            {me?.device
              ? 'This device is let in already.'
              : 'This device is not let in yet. At the computer open Notebook, Phone, and press "Let a phone in".'}
          </p>
          <label>
            What this device is called
            <input
              className="block min-h-11 w-full"
              value={name}
              maxLength={40}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <label>
            Six digits from the computer&apos;s screen
            {readSecret === undefined ? '' : ' (the camera has read them; leave empty)'}
            <input
              className="block min-h-11 w-full font-mono text-2xl tracking-widest"
              inputMode="numeric"
              autoComplete="one-time-code"
              value={code}
              onChange={(event) => setCode(event.target.value)}
            />
          </label>
          {fault && (
            <p role="alert" className="text-danger">
              {fault}
            </p>
          )}
          <Button look="main" type="submit">
            Ask to be let in
          </Button>
        </form>
      )}
      {me?.fingerprint && (
        <p className="mt-6 text-sm text-dim">
          Did the browser warn? This computer vouches for itself. The fingerprint of its authority, here and on its
          screen: <span className="font-mono break-all">{me.fingerprint}</span>. When the browser&apos;s view of the
          certificate shows another, close this page.
        </p>
      )}
    </main>
  );
}
