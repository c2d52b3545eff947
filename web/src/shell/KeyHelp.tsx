import { Modal } from 'antd';
import { usePreferences } from '../words/preferences';

const ON_ROUNDS: readonly (readonly [string, string])[] = [
  ['↓  ↑', 'walk through the machines'],
  ['Enter', 'open the machine'],
  ['Space', 'choose it, with others'],
  ['f', 'find a machine'],
  ['w', 'work on it: start at the bench'],
  ['n', 'not now: set it aside, with a reason'],
  ['p', 'by place, or by urgency again'],
  ['e', 'explain the strip'],
];

const ON_CHARTS: readonly (readonly [string, string])[] = [
  ['←  →', 'read the values, point by point'],
  ['+  −', 'look closer, or at all of it'],
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
    <Modal title="Keys" open={open} onCancel={onClose} footer={null} width={420}>
      {!keys && <p>Letters and digits are switched off as keys on this device; the others work.</p>}
      <h2>Everywhere</h2>
      <Keys
        keys={[
          ['?', 'this list'],
          ['Esc', 'close what is open'],
          ...places.map((p, i) => [String(i + 1), `go to ${p.name}`] as const),
        ]}
      />
      <h2 style={{ marginTop: 14 }}>On Rounds</h2>
      <Keys keys={ON_ROUNDS} />
      <h2 style={{ marginTop: 14 }}>On a chart</h2>
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
