import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { api, unwrap } from '../../api/client';
import { useSession } from '../../api/session';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';

/** How a phone gets here: where it is, what makes it trust the house, and how it stays on the phone. */
export function Phone() {
  usePageTitle(t`On your phone`);
  const session = useSession();
  const house = useQuery({
    queryKey: ['house-address'],
    queryFn: () => unwrap(api.GET('/api/v1/house/address')),
  });
  if (!house.data) return <Unready of={[house]} title={t`On your phone`} />;
  const { address, qr, rootAddress, rootQr, fingerprint } = house.data;
  if (address === null || qr === null)
    return (
      <div className="page">
        <h1>{t`No phone reaches this house.`}</h1>
        <p>
          {session?.solo
            ? t`The program was started for one person at this machine. Start it with ./run.sh --house --listen 0.0.0.0: it asks everybody to sign in, and phones in the same network reach it.`
            : t`The program listens on this machine alone. Start it with --listen 0.0.0.0, or name it with --name.`}
        </p>
      </div>
    );
  return (
    <div className="page broad">
      <h1>{t`Point the phone’s camera at this picture.`}</h1>
      <p>
        <Picture of={qr} name={t`The address as a QR code`} />
      </p>
      <p>
        {t`It leads to`} <code translate="no">{address}</code>.{' '}
        {t`The phone must be in a network that reaches this machine. Sign in there once; then add the page to the home screen, and the bench opens without network too.`}
      </p>
      {rootAddress !== null && rootQr !== null && (
        <>
          <h2 className="next-heading">{t`Before that, once for each phone: let it trust this house.`}</h2>
          <p>
            {t`This house has made its own certificate, which no phone knows. Fetch its root and install it as a certificate authority in the phone’s security settings. Whoever runs your network may have a better way: a certificate that all your devices trust already.`}
          </p>
          <p>
            <Picture of={rootQr} name={t`The address of the root as a QR code`} />
          </p>
          <p>
            <a href={rootAddress} download>
              {rootAddress}
            </a>
          </p>
          <p>
            {t`Compare what the phone shows as its SHA-256 fingerprint with this before you install it:`}{' '}
            <code className="whole-link" translate="no">
              {fingerprint}
            </code>
          </p>
        </>
      )}
      <h2 className="next-heading">{t`If the phone is lost`}</h2>
      <p>
        {t`Sign it out under Your account, on any other device. What it had not sent yet is lost with it; all else is here.`}
      </p>
    </div>
  );
}

const Picture = ({ of, name }: { of: string; name: string }) => (
  <img className="code-picture" alt={name} src={`data:image/svg+xml;utf8,${encodeURIComponent(of)}`} />
);
