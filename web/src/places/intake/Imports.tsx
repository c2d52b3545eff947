import { plural, t } from '@lingui/core/macro';
import { Button, Popconfirm } from 'antd';
import { useQuery } from '@tanstack/react-query';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { instant } from '../../words/format';
import { Refusal } from '../../ui/Refusal';
import { PlainTable } from '../../ui/PlainTable';

type Import = Schemas['StoredImport'];

const WHAT: Record<Import['kind'], (i: Import) => string> = {
  fleet: (i) =>
    t`Fleet document: ${plural(i.created, { one: '# machine', other: '# machines' })} new${i.changed > 0 ? t`, ${i.changed.toLocaleString()} changed` : ''}`,
  readings: (i) => t`Readings: ${plural(i.created, { one: '# line', other: '# lines' })}`,
  services: (i) => t`Services: ${plural(i.created, { one: '# line', other: '# lines' })}`,
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
    <section className="section" aria-label={t`Brought in so far`}>
      <div className="section-head">
        <h2>{t`Brought in so far`}</h2>
      </div>
      {undo.isError && <Refusal error={undo.error} />}
      <PlainTable
        head={
          <>
            <th>{t`when`}</th>
            <th>{t`what`}</th>
            <th />
          </>
        }
      >
        {imports.data.map((i) => (
          <tr key={i.id}>
            <td>{instant(i.at)}</td>
            <td className={i.undoneAt === null ? undefined : 'quiet'}>{WHAT[i.kind](i)}</td>
            <td className="num">
              {i.undoneAt === null ? (
                <Popconfirm
                  title={t`Undo this import?`}
                  description={t`What it created goes, what it changed comes back.`}
                  okText={t`Undo it`}
                  cancelText={t`Keep it`}
                  onConfirm={() => undo.mutate(i.id)}
                >
                  <Button size="small" loading={undo.isPending && undo.variables === i.id}>
                    {t`Undo`}
                  </Button>
                </Popconfirm>
              ) : (
                <span className="quiet">{t`undone ${instant(i.undoneAt)}`}</span>
              )}
            </td>
          </tr>
        ))}
      </PlainTable>
    </section>
  );
}
