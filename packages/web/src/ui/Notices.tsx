import { Button, Toast, ToastContainer } from 'react-bootstrap';
import { useNotices } from './noticeStore';
import { written } from './numberText';

const shownMilliseconds = 10_000;

/** Short messages at the foot of the page: faults, and news that can be undone. */
export function Notices() {
  const notices = useNotices((state) => state.notices);
  const dismiss = useNotices((state) => state.dismiss);
  return (
    <ToastContainer position="bottom-center" containerPosition="fixed" className="notices" aria-live="polite">
      {notices.map(({ id, kind, text, action }) => (
        <Toast
          key={id}
          autohide
          delay={shownMilliseconds}
          onClose={() => dismiss(id)}
          className={`notice ${kind}`}
          animation={false}
          role="status"
        >
          <Toast.Body>
            <span>{written(text)}</span>
            {action !== undefined && (
              <Button
                variant="on-ink"
                onClick={() => {
                  action.run();
                  dismiss(id);
                }}
              >
                {action.label}
              </Button>
            )}
            <Button variant="on-ink" aria-label="Dismiss" onClick={() => dismiss(id)}>
              ✕
            </Button>
          </Toast.Body>
        </Toast>
      ))}
    </ToastContainer>
  );
}
