import { t } from '@lingui/core/macro';
import { Modal } from 'antd';
import { usePreferences } from '../words/preferences';

const ON_ROUNDS: readonly (readonly [string, string])[] = [
  ['↓  ↑', t`walk through the machines`],
  [t`Enter`, t`open the machine`],
  [t`Space`, t`choose it, with others`],
  ['f', t`find a machine`],
  ['w', t`work on it: start at the bench`],
  ['n', t`not now: set it aside, with a reason`],
  ['p', t`by place, or by urgency again`],
  ['e', t`explain the strip`],
];

const ON_WEEKS: readonly (readonly [string, string])[] = [
  ['←  →', t`hold the job earlier or later`],
  ['↑  ↓', t`hold it over somebody else`],
  [t`Page Up, Page Down`, t`hold it over another day`],
  [t`Enter`, t`put it there`],
  [t`Esc`, t`give up: it stays where it was`],
];

const ON_CHARTS: readonly (readonly [string, string])[] = [
  ['←  →', t`read the values, point by point`],
  ['+  −', t`look closer, or at all of it`],
];

/** The one overlay of all keys. */
export function KeyHelp({
  open,
  onClose,
  places,
}: {
  open: boolean;
  onClose: () => void;
  places: readonly { name: string }[];
}) {
  const { keys } = usePreferences();
  return (
    <Modal title={t`Keys`} open={open} onCancel={onClose} footer={null} width={420}>
      {!keys && <p>{t`Letters and digits are switched off as keys on this device; the others work.`}</p>}
      <h2>{t`Everywhere`}</h2>
      <Keys
        keys={[
          ['?', t`this list`],
          [t`Esc`, t`close what is open`],
          ...places.map((p, i) => [String(i + 1), t`go to ${p.name}`] as const),
        ]}
      />
      <h2 className="apart">{t`On Rounds`}</h2>
      <Keys keys={ON_ROUNDS} />
      <h2 className="apart">{t`On Weeks, with a job in the focus`}</h2>
      <Keys keys={ON_WEEKS} />
      <h2 className="apart">{t`On a chart`}</h2>
      <Keys keys={ON_CHARTS} />
    </Modal>
  );
}

function Keys({ keys }: { keys: readonly (readonly [string, string])[] }) {
  return (
    <dl className="key-list">
      {keys.map(([key, what]) => (
        <div key={key}>
          <dt>
            {key
              .split(' ')
              .filter(Boolean)
              .map((k) => (
                <kbd key={k}>{k}</kbd>
              ))}
          </dt>
          <dd>{what}</dd>
        </div>
      ))}
    </dl>
  );
}
