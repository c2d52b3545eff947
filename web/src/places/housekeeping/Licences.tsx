import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { api, unwrap } from '../../api/client';
import { PlainTable } from '../../ui/PlainTable';
import { Unready } from '../../ui/Unready';
import './housekeeping.css';

/** What ships with the program, under which licences, with their texts. */
export function Licences() {
  const answer = useQuery({
    queryKey: ['housekeeping', 'packages'],
    queryFn: () => unwrap(api.GET('/api/v1/housekeeping/packages')),
    staleTime: Infinity,
  });
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState<string | null>(null);
  const sought = search.trim().toLowerCase();
  const shown = answer.data?.filter((p) => `${p.name} ${p.licence}`.toLowerCase().includes(sought));
  return (
    <section>
      <h2 className="next-heading">{t`What it is made of`}</h2>
      {!answer.data && <Unready of={[answer]} as="part" />}
      {answer.data && shown && (
        <>
          <p className="quiet">
            {plural(answer.data.length, {
              one: 'One package ships with the program; the text of its licence is its own, or where it brings none the one of the SPDX list.',
              other:
                '# packages ship with the program; the text of a licence is the package’s own, or where it brings none the one of the SPDX list.',
            })}{' '}
            <a href="/api/v1/housekeeping/bill-of-materials.cdx.json" download>
              {t`Bill of materials (CycloneDX)`}
            </a>
          </p>
          <Input
            aria-label={t`Search packages`}
            placeholder={t`a package, a licence`}
            value={search}
            onChange={(e) => setSearch(e.target.value)}
            maxLength={80}
            allowClear
            style={{ maxWidth: 300 }}
          />
          {shown.length === 0 && <p className="quiet">{t`Nothing found.`}</p>}
          {shown.length > 0 && (
            <PlainTable
              head={
                <>
                  <th>{t`Package`}</th>
                  <th>{t`Version`}</th>
                  <th>{t`Licence`}</th>
                  <th>{t`Whose`}</th>
                  <th aria-label={t`Text`} />
                </>
              }
            >
              {shown.flatMap((p) => {
                const key = `${p.name} ${p.version}`;
                const isOpen = open === key;
                return [
                  <tr key={key}>
                    <td translate="no">{p.name}</td>
                    <td className="figures small" translate="no">
                      {p.version}
                    </td>
                    <td translate="no">{p.licence}</td>
                    <td className="quiet small" translate="no">
                      {p.copyright ?? ''}
                    </td>
                    <td style={{ width: 90 }}>
                      <Button
                        size="small"
                        aria-expanded={isOpen}
                        onClick={() => setOpen(isOpen ? null : key)}
                      >
                        {isOpen ? t`Less` : t`Text`}
                      </Button>
                    </td>
                  </tr>,
                  ...(isOpen
                    ? [
                        <tr key="text">
                          <td colSpan={5}>
                            <pre className="licence-text small" translate="no">
                              {p.text}
                            </pre>
                          </td>
                        </tr>,
                      ]
                    : []),
                ];
              })}
            </PlainTable>
          )}
        </>
      )}
    </section>
  );
}
