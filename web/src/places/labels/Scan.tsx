import { t } from '@lingui/core/macro';
import { Button, Input } from 'antd';
import jsQR from 'jsqr';
import { useEffect, useRef, useState } from 'react';
import { Refusal } from '../../ui/Refusal';
import { usePageTitle } from '../../ui/usePageTitle';
import { useOpenLabel } from '../../ui/useOpenLabel';
import '../../ui/work.css';

/** Frames of the camera are looked at this often, ms. */
const LOOK = 200;

/** A label read by the camera, by a hand scanner that types, or by hand; it opens the machine, or the job in hand. */
export function Scan() {
  usePageTitle(t`Scan`);
  const openLabel = useOpenLabel();
  const [text, setText] = useState('');
  const [camera, setCamera] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const open = async (scanned: string) => {
    setError(null);
    try {
      await openLabel(scanned);
    } catch (e) {
      setError(e instanceof Error ? e : new Error(String(e)));
      setText('');
    }
  };
  return (
    <div className="bench">
      <h1>{t`Scan a label.`}</h1>
      <p className="quiet">
        {t`A hand scanner types into the field below and presses Enter by itself; a tag can be typed too.`}
      </p>
      {error && <Refusal error={error} />}
      <Input
        size="large"
        aria-label={t`Label`}
        ref={(field) => field?.focus()}
        value={text}
        maxLength={300}
        onChange={(e) => setText(e.target.value)}
        onPressEnter={() => text.trim() && void open(text.trim())}
        placeholder="GC-0117"
      />
      <div className="bench-more">
        <Button onClick={() => setCamera(!camera)}>
          {camera ? t`Put the camera away` : t`Use the camera`}
        </Button>
      </div>
      {camera && (
        <Camera
          onRead={(read) => {
            setCamera(false);
            void open(read);
          }}
          onTrouble={(e) => {
            setCamera(false);
            setError(e);
          }}
        />
      )}
    </div>
  );
}

function Camera({
  onRead,
  onTrouble,
}: {
  onRead: (text: string) => void;
  onTrouble: (error: Error) => void;
}) {
  const video = useRef<HTMLVideoElement>(null);
  const calls = useRef({ onRead, onTrouble });
  useEffect(() => {
    calls.current = { onRead, onTrouble };
  });
  useEffect(() => {
    let stream: MediaStream | null = null;
    let gone = false;
    const canvas = document.createElement('canvas');
    const look = setInterval(() => {
      const view = video.current;
      if (!view || view.videoWidth === 0) return;
      canvas.width = view.videoWidth;
      canvas.height = view.videoHeight;
      const context = canvas.getContext('2d', { willReadFrequently: true });
      if (!context) return;
      context.drawImage(view, 0, 0);
      const frame = context.getImageData(0, 0, canvas.width, canvas.height);
      const code = jsQR(frame.data, frame.width, frame.height);
      if (code?.data) calls.current.onRead(code.data);
    }, LOOK);
    const begin = async () => {
      try {
        const taken = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
        if (gone) taken.getTracks().forEach((t) => t.stop());
        else {
          stream = taken;
          if (video.current) video.current.srcObject = taken;
        }
      } catch {
        calls.current.onTrouble(
          new Error(
            t`The camera cannot be used: allow it for this page, or type the tag. Cameras need a secure address (https, or this very machine).`,
          ),
        );
      }
    };
    void begin();
    return () => {
      gone = true;
      clearInterval(look);
      stream?.getTracks().forEach((t) => t.stop());
    };
  }, []);
  return <video ref={video} autoPlay playsInline muted aria-label={t`Camera`} className="full on-track" />;
}
