import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button, Form, Input } from 'antd';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, unwrap } from '../../api/client';
import { outbox } from '../../api/outbox';
import { useWrite } from '../../api/queries';
import { useSignedIn } from '../../api/session';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { normalPassword } from '../../words/password';

interface Fields {
  account?: string;
  name?: string;
  password: string;
}

/** Where a link leads: whoever comes by it chooses a password, and is in. */
export function Enter() {
  usePageTitle(t`Come in`);
  // Read once, and taken out of the address: it should not stay in the browser's list of pages.
  const [link] = useState(() => location.hash.slice(1));
  const navigate = useNavigate();
  const signedIn = useSignedIn();
  const whose = useQuery({
    queryKey: ['link', link],
    queryFn: () => unwrap(api.POST('/api/v1/session/link', { body: { link } })),
    retry: false,
    staleTime: Infinity,
  });
  const enter = useWrite((fields: Fields) =>
    unwrap(
      api.POST('/api/v1/session/enter', {
        body: {
          link,
          password: normalPassword(fields.password),
          account: fields.account ?? null,
          name: fields.name?.normalize('NFC') ?? null,
        },
      }),
    ),
  );
  // What the link was good for stays on the screen while it is used up.
  const { data } = whose;
  if (!data)
    return (
      <>
        <Unready of={[whose]} title={t`Come in`} failed={t`This link leads nowhere`} />
        {whose.isError && (
          <p className="page">
            <Link to="/">{t`Sign in`}</Link>
          </p>
        )}
      </>
    );
  return (
    <div className="page sign-in">
      <h1>
        {data.first ? t`Set Pyrometron up for your house` : t`Welcome to Pyrometron, ${data.name ?? ''}`}
      </h1>
      <p>
        {data.first
          ? t`You will keep the house: let others in, say what they may, make backups. Others get a link from you.`
          : t`Your sign-in name is ${data.account ?? ''}. Choose a password: this link works once.`}
      </p>
      {enter.isError && <Refusal error={enter.error} />}
      <Form<Fields>
        layout="vertical"
        requiredMark={false}
        onFinish={(fields) =>
          enter.mutate(fields, {
            onSuccess: (session) => {
              void navigate('/', { replace: true });
              signedIn(session);
              void outbox.send();
            },
          })
        }
      >
        {data.first ? (
          <>
            <Form.Item
              name="name"
              label={t`Your name, as others see it`}
              rules={[{ required: true, message: t`The name is needed.` }]}
            >
              <Input autoComplete="name" maxLength={80} />
            </Form.Item>
            <Form.Item
              name="account"
              label={t`Sign-in name: small letters a to z, digits, dots and hyphens`}
              rules={[{ required: true, message: t`The sign-in name is needed.` }]}
            >
              <Input autoComplete="username" autoCapitalize="none" spellCheck={false} maxLength={40} />
            </Form.Item>
          </>
        ) : (
          // Password managers look for whose password it is.
          <input type="hidden" name="username" autoComplete="username" value={data.account ?? ''} readOnly />
        )}
        <Form.Item
          name="password"
          label={t`Password: 15 characters or more`}
          extra={t`Four or five words that have nothing to do with one another are easy to remember and hard to guess.`}
          rules={[{ required: true, message: t`The password is needed.` }]}
        >
          <Input.Password autoComplete="new-password" maxLength={1024} />
        </Form.Item>
        <Button type="primary" htmlType="submit" loading={enter.isPending}>
          {t`Come in`}
        </Button>
      </Form>
    </div>
  );
}
