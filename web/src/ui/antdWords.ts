import { t } from '@lingui/core/macro';
import type { ConfigProviderProps } from 'antd';
import english from 'antd/es/locale/en_US';

/** The few words that the parts of Ant Design bring along, in the reader's language. */
export const antdWords: NonNullable<ConfigProviderProps['locale']> = {
  ...english,
  global: { ...english.global, placeholder: t`choose`, close: t`Close` },
  Modal: { okText: t`OK`, cancelText: t`Cancel`, justOkText: t`OK` },
  Popconfirm: { okText: t`OK`, cancelText: t`Cancel` },
  Pagination: { ...english.Pagination, prev_page: t`Back`, next_page: t`On`, prev_5: t`Back`, next_5: t`On` },
  Empty: { description: t`Nothing to choose from` },
};
