import { Pagination } from 'antd';

/** Leads through a long list; not there where one page holds it. */
export function Pages({
  page,
  size,
  total,
  onChange,
}: {
  page: number;
  size: number;
  total: number;
  onChange: (page: string) => void;
}) {
  return (
    total > size && (
      <Pagination
        current={page}
        pageSize={size}
        total={total}
        showSizeChanger={false}
        onChange={(p) => onChange(String(p))}
        className="apart"
      />
    )
  );
}
