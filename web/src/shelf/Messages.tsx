import { X } from 'lucide-react';
import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { documentActions, sessionActions, useAppDispatch, useAppSelector, useRestorePieceMutation } from '../state';
import { IconButton } from '../ui';

const NOTICE_MS = 8_000;

/** What the program has to say: refusals, and what has more to read than a line, stay until they are closed; other notices go by themselves. */
export function Messages() {
  const messages = useAppSelector((state) => state.session.messages);
  const last = useAppSelector((state) => state.document.past[state.document.past.length - 1]?.id);
  const dispatch = useAppDispatch();
  const [restore] = useRestorePieceMutation();
  const navigate = useNavigate();
  useEffect(() => {
    const timers = messages
      .filter(({ tone, details, opens }) => tone === 'notice' && !details && !opens)
      .map(({ id }) => setTimeout(() => dispatch(sessionActions.dismissed(id)), NOTICE_MS));
    return () => timers.forEach(clearTimeout);
  }, [messages, dispatch]);
  return (
    <div className="messages">
      {messages.map((message) => (
        <div
          key={message.id}
          className={`message ${message.tone}`}
          role={message.tone === 'error' ? 'alert' : 'status'}
        >
          <div>
            {message.text}
            {message.details && (
              <ul>
                {message.details.map((detail) => (
                  <li key={detail}>{detail}</li>
                ))}
              </ul>
            )}
          </div>
          {message.undoDelete && (
            <button
              type="button"
              className="btn outlined btn-sm"
              onClick={() => {
                void restore(message.undoDelete as string);
                dispatch(sessionActions.dismissed(message.id));
              }}
            >
              Undo
            </button>
          )}
          {message.opens && (
            <button
              type="button"
              className="btn outlined btn-sm"
              onClick={() => {
                void navigate(message.opens as string);
                dispatch(sessionActions.dismissed(message.id));
              }}
            >
              Open
            </button>
          )}
          {message.undoChange !== undefined && message.undoChange === last && (
            <button
              type="button"
              className="btn outlined btn-sm"
              onClick={() => {
                dispatch(documentActions.undone());
                dispatch(sessionActions.dismissed(message.id));
              }}
            >
              Undo
            </button>
          )}
          <IconButton icon={X} label="Close" onClick={() => dispatch(sessionActions.dismissed(message.id))} />
        </div>
      ))}
    </div>
  );
}
