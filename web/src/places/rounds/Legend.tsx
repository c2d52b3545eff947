import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Modal } from 'antd';
import { HeadroomStrip } from '../../ui/marks/HeadroomStrip';
import { useNarrow } from '../../ui/useNarrow';

const EXAMPLE = { part: 'core', ambient: 24, fresh: 68, now: 77, heading: 86, line: 90, limit: 95 };

/** What the strip of a row shows, read from the left. */
export function Legend({ onClose }: { onClose: () => void }) {
  return (
    <Modal title={t`How to read the strip`} open onCancel={onClose} footer={null} width={460}>
      <HeadroomStrip strip={EXAMPLE} width={useNarrow(520) ? 280 : 400} />
      <ol className="legend">
        <li>
          <Trans>
            <strong>Air</strong>: the grey bar begins at the air that the machine takes in.
          </Trans>
        </li>
        <li>
          <Trans>
            <strong>Fresh</strong>: the thin line is where it stood after its last service, in today’s air.
          </Trans>
        </li>
        <li>
          <Trans>
            <strong>Lost</strong>: the coloured part is what it has become warmer since, by wear. No colour
            means nothing lost, however warm it is by nature.
          </Trans>
        </li>
        <li>
          <Trans>
            <strong>Now</strong>: the dot, with its temperature.
          </Trans>
        </li>
        <li>
          <Trans>
            <strong>On a hot day</strong>: the dashes lead to where it would stand in the warmest air its zone
            is planned for, with its fan at full speed.
          </Trans>
        </li>
        <li>
          <Trans>
            <strong>Action line</strong>: the dotted line, a few kelvins before the limit.
          </Trans>
        </li>
        <li>
          <Trans>
            <strong>Limit</strong>: the thick line at the right end.
          </Trans>
        </li>
      </ol>
    </Modal>
  );
}
