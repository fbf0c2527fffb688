import { useEffect, useState } from 'react';
import { useMe } from '../../../data/door';
import { Section } from '../../../ui/section';

type Kept = 'looking' | 'yes' | 'not trusted' | 'not able';

/** Whether this browser keeps the application, so that it opens while the computer is away; and what to do when not. */
export function KeptHere() {
  const { data: me } = useMe();
  const [kept, setKept] = useState<Kept>('looking');
  useEffect(() => {
    let gone = false;
    const tell = (now: Kept): void => {
      if (!gone) setKept(now);
    };
    if (!('serviceWorker' in navigator)) {
      const timer = setTimeout(() => tell('not able'));
      return () => clearTimeout(timer);
    }
    void navigator.serviceWorker.getRegistration().then((found) => tell(found ? 'yes' : 'not trusted'));
    return () => {
      gone = true;
    };
  }, []);
  return (
    <Section title="Opening without the computer" hint="what this browser keeps">
      {kept === 'yes' ? (
        <p className="max-w-prose">
          This browser keeps the pages and the station last seen: they open while the server is away. To have it beside
          the other applications use &quot;Install&quot; or &quot;Add to home screen&quot; of the browser&apos;s menu.
        </p>
      ) : kept === 'looking' ? (
        <p>Looking.</p>
      ) : (
        <div className="max-w-prose">
          <p>
            This browser does not keep the pages yet
            {kept === 'not trusted' ? ', because it does not trust the certificate or was just opened' : ''}. While this
            page stays open it takes entries without the computer and sends them later; it cannot be opened anew without
            it.
          </p>
          {me?.place === 'network' && (
            <ol className="mt-2 list-decimal pl-5">
              <li>
                Save the <a href="/api/door/authority.crt">certificate of the computer&apos;s authority</a> (it can
                vouch for local addresses only).
              </li>
              <li>
                In the phone&apos;s settings, under security or profiles, install it as a trusted authority for web
                pages.
              </li>
              <li>Open this page again: the warning is gone, and the browser offers to install it.</li>
            </ol>
          )}
        </div>
      )}
    </Section>
  );
}
