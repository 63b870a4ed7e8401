import { Modal } from 'react-bootstrap';
import { COMMANDS } from '../../editor';
import { sessionActions, useAppDispatch, useAppSelector } from '../../state';
import { keysText } from './keys-text';

const GROUPS = ['Play', 'Tools', 'Change', 'View', 'Go to'] as const;

/** All shortcuts, from the command table. */
export function ShortcutSheet() {
  const open = useAppSelector((state) => state.session.sheetOpen);
  const dispatch = useAppDispatch();
  return (
    <Modal
      show={open}
      onHide={() => dispatch(sessionActions.sheetToggled(false))}
      centered
      aria-labelledby="sheet-title"
    >
      <Modal.Header closeButton>
        <Modal.Title id="sheet-title">Shortcuts</Modal.Title>
      </Modal.Header>
      <Modal.Body className="sheet">
        {GROUPS.map((group) => (
          <section key={group}>
            <h3>{group}</h3>
            <dl>
              {COMMANDS.filter((command) => command.group === group).map((command) => (
                <div key={command.id}>
                  <dt>{command.label}</dt>
                  <dd>
                    <kbd>{keysText(command.keys[0])}</kbd>
                  </dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </Modal.Body>
    </Modal>
  );
}
