import { useEffect } from 'react';
import { type Notice, useNotices } from '../stores/notices';

const shownMilliseconds = 10_000;

export function Notices() {
  const notices = useNotices((state) => state.notices);
  return (
    <div className="notices" role="status" aria-live="polite">
      {notices.map((notice) => (
        <OneNotice key={notice.id} notice={notice} />
      ))}
    </div>
  );
}

function OneNotice({ notice: { id, text, kind, action } }: { notice: Notice }) {
  const dismiss = useNotices((state) => state.dismiss);
  useEffect(() => {
    const timer = setTimeout(() => dismiss(id), shownMilliseconds);
    return () => clearTimeout(timer);
  }, [id, dismiss]);
  return (
    <div className={`notice ${kind}`}>
      <span>{text}</span>
      {action !== undefined && (
        <button
          onClick={() => {
            action.run();
            dismiss(id);
          }}
        >
          {action.label}
        </button>
      )}
      <button className="close" aria-label="Dismiss" onClick={() => dismiss(id)}>
        ✕
      </button>
    </div>
  );
}
