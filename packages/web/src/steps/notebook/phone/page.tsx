import type { Device, DoorEvent, EventKind, Me } from '@velvet-reed/contract';
import { countText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { leaveDoor, revokeDevice, useDoor, useMe } from '../../../data/door';
import { forgetSeen } from '../../../data/last-seen';
import { useNow } from '../../../data/now';
import { showTrouble } from '../../../data/station';
import { Button } from '../../../ui/button';
import { momentText } from '../../../ui/moment-text';
import { Room } from '../../../ui/room';
import { Next, Note, Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { LetIn } from './let-in';
import { KeptHere } from './kept-here';

export default function PhoneRoom() {
  return <StationPage>{() => <PhonePage />}</StationPage>;
}

function PhonePage() {
  const { data: me } = useMe();
  const atDesk = me?.place === 'desk';
  const { data: door, mutate } = useDoor(atDesk);
  const inside = (door?.devices ?? []).filter(({ revokedMs }) => revokedMs === null);
  return (
    <Room
      title="Phone, Notebook"
      verdict={<Verdict me={me} count={inside.length} />}
      margin={
        <>
          <Note title="What a phone may do">
            <p>
              Read the stations, write records and photos, undo its own, use instruments. Backups, station files, the
              bin and this page&apos;s decisions stay at the computer.
            </p>
          </Note>
          <Note title="Who reads along">
            <p>
              Nobody on the network: all goes by TLS. The first time a browser warns, because this computer vouches for
              itself; compare the fingerprint before you go on.
            </p>
          </Note>
        </>
      }
    >
      {me?.place === 'network' ? (
        <ThisPhone me={me} />
      ) : (
        <>
          <div data-evidence>
            {door && !door.network && <NotOpen />}
            {door?.network && <LetIn network={door.network} onLetIn={() => void mutate()} />}
            {door && <Devices devices={door.devices} onChanged={() => void mutate()} />}
          </div>
          {door && <Events events={door.events} />}
          <KeptHere />
        </>
      )}
    </Room>
  );
}

function Verdict({ me, count }: { readonly me: Me | undefined; readonly count: number }) {
  if (!me) return <>Looking who may come in.</>;
  if (me.place === 'network')
    return (
      <>
        This is {me.device?.name ?? 'a device'}, let in by the computer.{' '}
        <Next>Next: go out and measure; what you write while the computer is away waits here.</Next>
      </>
    );
  if (!me.open)
    return (
      <>
        Only this computer reaches its pages.{' '}
        <Next>Next: to take a phone to the mast, start with npm start -- --lan.</Next>
      </>
    );
  return (
    <>
      The door to the local network is open for {count === 0 ? 'no phone yet' : countText(count, 'phone')}.{' '}
      <Next>
        {count === 0 ? 'Next: let a phone in.' : 'Next: revoke what you do not know; close by a start without --lan.'}
      </Next>
    </>
  );
}

const NotOpen = () => (
  <Section title="The door is closed" hint="the local network is not listened to">
    <ol className="max-w-prose list-decimal pl-5">
      <li>
        Stop the server, then start it with <code className="font-mono">npm start -- --lan</code>.
      </li>
      <li>Come back here and press &quot;Let a phone in&quot;: a picture for its camera and six digits appear.</li>
      <li>Say yes on this screen when both show the same four digits.</li>
    </ol>
  </Section>
);

function Devices({ devices, onChanged }: { readonly devices: readonly Device[]; readonly onChanged: () => void }) {
  const [busy, setBusy] = useState<string>();
  const revoke = async (id: string): Promise<void> => {
    setBusy(id);
    try {
      await revokeDevice(id);
      onChanged();
    } catch (fault) {
      showTrouble(fault);
    } finally {
      setBusy(undefined);
    }
  };
  return (
    <Section title="Devices" hint="an unused one is out after 90 days, any after a year">
      {devices.length === 0 ? (
        <Empty>No phone was let in yet.</Empty>
      ) : (
        <Wide label="Devices that were let in">
          <table className="w-full max-w-3xl">
            <thead>
              <tr>
                <th scope="col">Device</th>
                <th scope="col">Let in, UTC</th>
                <th scope="col">Last use, UTC</th>
                <th scope="col">From</th>
                <th scope="col">
                  <span className="sr-only">Revoke</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {devices.map(({ id, name, madeMs, lastMs, from, revokedMs }) => (
                <tr key={id} className={revokedMs === null ? '' : 'text-dim'}>
                  <th scope="row" className="text-ink">
                    {name}
                  </th>
                  <td className="font-mono whitespace-nowrap">{momentText(madeMs)}</td>
                  <td className="font-mono whitespace-nowrap">{momentText(lastMs)}</td>
                  <td className="font-mono">{from}</td>
                  <td>
                    {revokedMs === null ? (
                      <Button
                        look="quiet"
                        busy={busy === id}
                        aria-label={`Revoke ${name}`}
                        onClick={() => void revoke(id)}
                      >
                        Revoke
                      </Button>
                    ) : (
                      'revoked'
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </Section>
  );
}

const EVENT_WORDS: Readonly<Record<EventKind, string>> = {
  ...{ FOREIGN_HOST: 'asked for an address that is not served here', FOREIGN_ORIGIN: 'a page of another origin asked' },
  ...{ FOREIGN_PAGE: 'another site sent a request', NOT_LOCAL: 'came from outside the local network' },
  ...{
    UNPAIRED: 'a device that was not let in asked',
    REVOKED: 'a revoked device asked',
    DESK_ONLY: 'a phone asked for what the computer alone does',
  },
  ...{ TOO_OFTEN: 'too many requests at once', QUOTA: 'sent more than a device may in a day' },
  ...{
    DOOR_OPENED: 'a code was made',
    CODE_WRONG: 'a wrong code',
    CODE_SPENT: 'a code or ticket that is not good any more',
  },
  ...{ ASKED_IN: 'gave the code and asks to be let in', LET_IN: 'let in', TURNED_AWAY: 'turned away' },
  ...{ DEVICE_REVOKED: 'revoked', DEVICE_LEFT: 'left by itself' },
};

function Events({ events }: { readonly events: readonly DoorEvent[] }) {
  return (
    <Section title="What happened at the door" hint="latest first, UTC; also in door/events.jsonl of the data folder">
      {events.length === 0 ? (
        <Empty>Nothing yet. Requests that are turned away, codes and devices are noted here.</Empty>
      ) : (
        <Wide label="What happened at the door">
          <table className="w-full max-w-3xl text-sm">
            <thead>
              <tr>
                <th scope="col">When</th>
                <th scope="col">What</th>
                <th scope="col">About</th>
                <th scope="col">From</th>
              </tr>
            </thead>
            <tbody>
              {[...events].reverse().map(({ atMs, kind, from, what }) => (
                <tr key={`${atMs} ${kind} ${from} ${what}`}>
                  <td className="font-mono whitespace-nowrap">{momentText(atMs)}</td>
                  <td>{EVENT_WORDS[kind] ?? kind}</td>
                  <td className="break-all">{what}</td>
                  <td className="font-mono">{from === '' ? 'this computer' : from}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </Section>
  );
}

/** What a phone sees of itself. */
function ThisPhone({ me }: { readonly me: Me }) {
  const nowMs = useNow();
  const leave = async (): Promise<void> => {
    try {
      await leaveDoor();
      await forgetSeen();
      location.assign('/pair');
    } catch (fault) {
      showTrouble(fault);
    }
  };
  return (
    <>
      <div data-evidence className="min-h-40">
        <Section
          title="This device"
          hint={me.device ? `let in ${Math.max(0, Math.floor((nowMs - me.device.madeMs) / 86_400_000))} days ago` : ''}
        >
          <p>
            Fingerprint of the computer&apos;s authority:{' '}
            <span className="font-mono text-sm break-all">{me.fingerprint}</span>. It stands on the computer&apos;s
            screen as well; compare them.
          </p>
          <p className="mt-2">
            <Button onClick={() => void leave()}>Leave: forget this device</Button>
          </p>
        </Section>
      </div>
      <KeptHere />
    </>
  );
}
