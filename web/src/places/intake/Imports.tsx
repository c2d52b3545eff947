import { Button, Popconfirm } from 'antd';
import { useQuery } from '@tanstack/react-query';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { count, instant } from '../../words/format';
import { Refusal } from '../../ui/Refusal';

type Import = Schemas['StoredImport'];

const WHAT: Record<Import['kind'], (i: Import) => string> = {
  fleet: (i) =>
    `Fleet document: ${count(i.created, 'machine')} new${i.changed > 0 ? `, ${i.changed.toLocaleString()} changed` : ''}`,
  readings: (i) => `Readings: ${count(i.created, 'line')}`,
  services: (i) => `Services: ${count(i.created, 'line')}`,
};

/** What was brought in so far. The newest can be taken back as a whole, until something was built on it. */
export function Imports() {
  const imports = useQuery({
    queryKey: ['imports'],
    queryFn: () => unwrap(api.GET('/api/v1/imports', { params: { query: { count: 8 } } })),
  });
  const undo = useWrite((id: number) =>
    unwrap(api.POST('/api/v1/imports/{id}/undo', { params: { path: { id } } })),
  );
  if (!imports.data || imports.data.length === 0) return null;
  return (
    <section className="section" aria-label="Brought in so far">
      <div className="section-head">
        <h2>Brought in so far</h2>
      </div>
      {undo.isError && <Refusal error={undo.error} />}
      <table className="plain-table">
        <thead>
          <tr>
            <th>when</th>
            <th>what</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {imports.data.map((i) => (
            <tr key={i.id}>
              <td>{instant(i.at)}</td>
              <td className={i.undoneAt === null ? undefined : 'quiet'}>{WHAT[i.kind](i)}</td>
              <td className="num">
                {i.undoneAt === null ? (
                  <Popconfirm
                    title="Undo this import?"
                    description="What it created goes, what it changed comes back."
                    okText="Undo it"
                    cancelText="Keep it"
                    onConfirm={() => undo.mutate(i.id)}
                  >
                    <Button size="small" loading={undo.isPending && undo.variables === i.id}>
                      Undo
                    </Button>
                  </Popconfirm>
                ) : (
                  <span className="quiet">undone {instant(i.undoneAt)}</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
