import { Modal } from 'antd';

const ON_ROUNDS: readonly (readonly [string, string])[] = [
  ['/', 'find a machine'],
  ['j  k', 'walk down and up'],
  ['Enter', 'open the machine'],
  ['s', 'start at the bench'],
  ['a', 'set aside with a reason'],
  ['z', 'group by zone or by urgency'],
];

/** The one overlay of all keys. */
export function KeyHelp({
  open,
  onClose,
  places,
}: {
  open: boolean;
  onClose: () => void;
  places: readonly { name: string; key: string }[];
}) {
  return (
    <Modal title="Keys" open={open} onCancel={onClose} footer={null} width={420}>
      <h2>Everywhere</h2>
      <Keys
        keys={[
          ['?', 'this list'],
          ['Esc', 'close what is open'],
          ...places.map((p) => [`g ${p.key}`, `go to ${p.name}`] as const),
        ]}
      />
      <h2 style={{ marginTop: 14 }}>On Rounds</h2>
      <Keys keys={ON_ROUNDS} />
    </Modal>
  );
}

function Keys({ keys }: { keys: readonly (readonly [string, string])[] }) {
  return (
    <dl style={{ display: 'grid', gridTemplateColumns: '90px 1fr', gap: '4px 12px', margin: '8px 0 0' }}>
      {keys.map(([key, what]) => (
        <div key={key} style={{ display: 'contents' }}>
          <dt>
            {key.split(' ').map((k) =>
              k ? (
                <kbd key={k} style={{ marginRight: 4 }}>
                  {k}
                </kbd>
              ) : null,
            )}
          </dt>
          <dd style={{ margin: 0 }}>{what}</dd>
        </div>
      ))}
    </dl>
  );
}
