import { QRCodeSVG } from 'qrcode.react';
import { isBeyondLoopback } from '@/env/environment';
import { database } from '@/server/services/database';
import { readDoor, type Door } from '@/server/services/door';
import { doorAddresses } from '@/server/services/door-address';
import { suggestPassphrase } from '@/server/services/passphrase';
import { currentSession, type Session } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { stampWords } from '@/ui/components/dates';
import { LetPhonesIn } from '@/ui/shop/LetPhonesIn';
import { PhoneList } from '@/ui/shop/PhoneList';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

/** Black on white in both themes, with the quiet zone that cameras need (ISO/IEC 18004: four modules). */
function DoorCode({ address }: { readonly address: string }) {
  return (
    <figure className="door-code">
      <QRCodeSVG value={address} size={232} marginSize={4} level="M" title={`Code that opens ${address}`} />
      <figcaption>
        or type <strong className="figures">{address.replace('http://', '')}</strong> into its browser
      </figcaption>
    </figure>
  );
}

function OpenDoor({ door, addresses, session }: { door: Door; addresses: readonly string[]; session: Session }) {
  return (
    <div className="two">
      <div>
        <h2>Point the phone&rsquo;s camera at this</h2>
        {addresses.map((a) => (
          <DoorCode key={a} address={a} />
        ))}
        {addresses.length === 0 && (
          <p className="caution">
            This machine has no address in a network just now. Join it to the shop&rsquo;s network and open this page
            again.
          </p>
        )}
      </div>
      <PhoneList
        phones={door.devices.map((d) => ({
          id: d.id,
          cameIn: stampWords(d.at, session.person.timeZone),
          lastSeen: stampWords(d.lastSeenAt, session.person.timeZone),
        }))}
      />
    </div>
  );
}

function OnThePhone() {
  return (
    <>
      <p>This device is in. The passphrase and the list of devices are at the machine that runs Red Plumb.</p>
      <form method="post" action="/sign-out">
        <button className="btn btn-quiet">Sign this device out</button>
      </form>
    </>
  );
}

export default async function PhonesPage() {
  const [session, door] = await Promise.all([currentSession(), readDoor(database())]);
  return (
    <HomeShell here="Shop" people={session}>
      <PageHeading>{door.isOpen ? 'Phones are let in' : 'Let phones in this shop in'}</PageHeading>
      {isBeyondLoopback() ? (
        <OnThePhone />
      ) : (
        <>
          <p>
            A phone or tablet in the shop&rsquo;s network can then read spots at the machine. Everyone who knows the
            passphrase sees every shop kept here and may change it.
          </p>
          {door.isOpen && <OpenDoor door={door} addresses={doorAddresses()} session={session} />}
          <LetPhonesIn isOpen={door.isOpen} suggested={suggestPassphrase()} />
          <p className="caution">
            What passes between phone and machine is not enciphered: use this in the shop&rsquo;s own network, not in an
            open one, and a passphrase that opens nothing else.
          </p>
        </>
      )}
    </HomeShell>
  );
}
