import { plural, t } from '@lingui/core/macro';
import { useQueryClient } from '@tanstack/react-query';
import { Button, Form, Input } from 'antd';
import { api, ProblemError, unwrap } from '../api/client';
import { outbox, useOutbox } from '../api/outbox';
import { useWrite } from '../api/queries';
import { sessionQuery, useSession, useSignedIn } from '../api/session';
import { Refusal } from '../ui/Refusal';
import { usePageTitle } from '../ui/usePageTitle';
import { normalPassword } from '../words/password';

interface Fields {
  account: string;
  password: string;
  code?: string;
}

/** Stands in place of every page while nobody is signed in; the address stays, and its page follows. */
export function SignIn() {
  usePageTitle(t`Sign in`);
  const signedIn = useSignedIn();
  const client = useQueryClient();
  const { waiting } = useOutbox();
  const first = useSession()?.needsFirst ?? false;
  const signIn = useWrite((fields: Fields) =>
    unwrap(
      api.POST('/api/v1/session', {
        body: { ...fields, password: normalPassword(fields.password), code: fields.code ?? null },
      }),
    ),
  );
  const needsCode = signIn.error instanceof ProblemError && signIn.error.problem.needs === 'code';
  const asked = needsCode || (signIn.variables?.code ?? '') !== '';
  return (
    <div className="page sign-in">
      <h1>{t`Sign in`}</h1>
      {first && (
        <p>
          {t`Nobody can sign in yet. Where the program was started it names a link: whoever sets the house up opens that one.`}{' '}
          <Button
            size="small"
            onClick={() => void client.invalidateQueries({ queryKey: sessionQuery.queryKey })}
          >
            {t`Look again`}
          </Button>
        </p>
      )}
      {waiting.length > 0 && (
        <p role="status">
          {plural(waiting.length, {
            one: 'One entry waits on this device. It is sent once whoever made it has signed in.',
            other: '# entries wait on this device. They are sent once whoever made them has signed in.',
          })}
        </p>
      )}
      {signIn.isError && <Refusal error={signIn.error} />}
      <Form<Fields>
        layout="vertical"
        requiredMark={false}
        onFinish={(fields) =>
          signIn.mutate(fields, {
            onSuccess: (session) => {
              signedIn(session);
              void outbox.send();
            },
          })
        }
      >
        <Form.Item
          name="account"
          label={t`Sign-in name`}
          rules={[{ required: true, message: t`The sign-in name is needed.` }]}
        >
          <Input autoComplete="username" autoCapitalize="none" spellCheck={false} maxLength={80} />
        </Form.Item>
        <Form.Item
          name="password"
          label={t`Password`}
          rules={[{ required: true, message: t`The password is needed.` }]}
        >
          <Input.Password autoComplete="current-password" maxLength={1024} />
        </Form.Item>
        {asked && (
          <Form.Item
            name="code"
            label={t`Code of your phone, or a recovery code`}
            rules={[{ required: true, message: t`The code is needed.` }]}
          >
            <Input autoComplete="one-time-code" maxLength={40} spellCheck={false} />
          </Form.Item>
        )}
        <Button type="primary" htmlType="submit" loading={signIn.isPending}>
          {t`Sign in`}
        </Button>
      </Form>
      <p className="quiet next-heading">
        {t`Lost the password or the phone? Whoever keeps the house’s accounts gives you a new link.`}
      </p>
    </div>
  );
}
